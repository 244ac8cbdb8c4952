import { connect, createServer, type Server, type Socket } from 'node:net'

/** A link to a database server that can be slow, cut, or swallow what goes over it. */
export interface Link {
  /** the address with this link in it */
  address: string
  /** ms that each way takes */
  delayMs: number
  /** nothing that is sent arrives any more; nothing is closed either */
  swallows: boolean
  /** of the next COMMITs, how many are cut: they arrive, their answer does not */
  cutsAtCommit: number
  /** Ends all connections and takes no new ones. */
  close: () => Promise<void>
  open: () => Promise<void>
}

export async function linkTo(address: string): Promise<Link> {
  const to = new URL(address)
  let server: Server | null = null
  let port = 0
  const sockets = new Set<Socket>()
  const link: Link = {
    address: '',
    delayMs: 0,
    swallows: false,
    cutsAtCommit: 0,
    async close() {
      const closed = new Promise<void>((done) => (server ? server.close(() => done()) : done()))
      server = null
      for (const socket of sockets) socket.destroy()
      await closed
    },
    async open() {
      server = createServer(accept)
      await new Promise<void>((done) => server!.listen(port, '127.0.0.1', done))
      const at = server.address()
      port = typeof at === 'object' && at ? at.port : 0
    },
  }
  function accept(near: Socket) {
    const far = connect(Number(to.port), to.hostname)
    let cut = false
    const later = (work: () => void) => (link.delayMs ? setTimeout(work, link.delayMs) : work())
    for (const socket of [near, far]) {
      sockets.add(socket)
      socket.setNoDelay(true)
      socket.on('error', () => {})
      socket.on('close', () => {
        sockets.delete(socket)
        near.destroy()
        far.destroy()
      })
    }
    near.on('data', (part) => {
      if (link.swallows) return
      if (link.cutsAtCommit > 0 && part.includes('COMMIT')) {
        link.cutsAtCommit--
        cut = true
      }
      later(() => far.write(part))
    })
    far.on('data', (part) => {
      if (link.swallows) return
      // it was done there; nobody here hears of it
      if (cut) near.destroy()
      else later(() => near.write(part))
    })
  }
  await link.open()
  const through = new URL(address)
  through.host = `127.0.0.1:${port}`
  link.address = through.href
  return link
}
