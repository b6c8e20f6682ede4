/** The command box and the sheet of keys: whether they are open. */
import { ref, type Ref } from 'vue'

const open = ref(false)
const keys = ref(false)

export const useCommands = (): { open: Ref<boolean>; keys: Ref<boolean> } => ({ open, keys })
