/** Lets what waits at the door come in. */
export const breathe = () => new Promise<void>((done) => setImmediate(done))
