export interface Toast {
  id: number
  text: string
  action?: { label: string; run: () => unknown }
  tone: 'plain' | 'bad'
}

const toasts = ref<Toast[]>([])
let next = 1
const SHOWN_MS = 9000

/** Short messages at the foot of the window; a deletion's carries its undo. */
export function useToast() {
  const dismiss = (id: number) => {
    toasts.value = toasts.value.filter((t) => t.id !== id)
  }
  const show = (text: string, options: { action?: Toast['action']; tone?: Toast['tone'] } = {}) => {
    const toast: Toast = {
      id: next++,
      text,
      tone: options.tone ?? 'plain',
      ...(options.action ? { action: options.action } : {}),
    }
    toasts.value = [...toasts.value.slice(-2), toast]
    setTimeout(dismiss, SHOWN_MS, toast.id)
  }
  return { toasts, show, dismiss }
}
