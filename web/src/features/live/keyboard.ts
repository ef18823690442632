import { useEventListener } from '@vueuse/core'
import { onMounted, watch } from 'vue'
import { actOnKey, commandOnKey, digitOf, loadKeys, studentKey } from '../../live/acts'
import type { Teaching } from './teaching'

const writesText = 'input:not([type=checkbox]):not([type=radio]), textarea, select, [role=dialog], [role=listbox]'
const pointsOnDigits = 5

/** Gives the keyboard back after a dialog: one that is closed puts the focus on what opened it. */
export async function freeAfterDialog() {
  for (let frame = 0; frame < 2; frame++) await new Promise(requestAnimationFrame)
  const opener = document.activeElement
  if (opener instanceof HTMLButtonElement) opener.blur()
}

/** Teaching by the keyboard: letters choose students, digits and signs log acts, all else is a command. */
export function useKeyboard(teaching: Teaching) {
  const { chosen, acts, commands, outcomes, turnRow, pass, big, bigSheet, ending, log, run } = teaching

  /** What a key does here; false if it is nobody's. */
  function pressed(event: KeyboardEvent): boolean {
    if (event.key === 'Escape') return (teaching.escape(), true)
    if (pass.value && event.key === 'Enter') return (teaching.finishPass(), true)
    if (big.value && bigSheet.value?.onKey(event)) return true
    if (teaching.panel.value === 'rubric' && teaching.judging.onKey(event, Number(digitOf(event) ?? 0))) return true
    const command = commandOnKey(event, commands.value, acts.value)
    if (command) return (void run[command.name](), true)
    if (event.key === 'ArrowDown') return (teaching.move(1), true)
    if (event.key === 'ArrowUp') return (teaching.move(-1), true)
    const act = actOnKey(event, acts.value)
    const letter = studentKey(event)
    if (letter && !act) return (teaching.letterPressed(letter, event.shiftKey), true)
    if (act && chosen.value.length) return (log(act, chosen.value), true)
    if (act && turnRow.value && outcomes.value.includes(act)) return (log(act, [turnRow.value.id]), true)
    // With a turn on and nobody chosen, the digits from 1 tick its points.
    const digit = Number(digitOf(event) ?? 0)
    return digit >= 1 && digit <= pointsOnDigits && teaching.tickPoint(digit - 1)
  }

  function onKey(event: KeyboardEvent) {
    const target = event.target as HTMLElement
    // A function key writes nothing, so it does in a field what it says.
    if (ending.value || (target.closest(writesText) && !/^F\d+$/.test(event.key))) {
      if (event.key === 'Escape') target.blur()
      return
    }
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      teaching.takeBack()
      return
    }
    if (event.ctrlKey || event.metaKey || event.altKey) return
    // A key that is held down is one press; only choosing goes on with it.
    if (event.repeat && !event.key.startsWith('Arrow')) return event.preventDefault()
    // On a button these press it.
    if ((event.key === 'Enter' || event.key === ' ') && target.closest('button, a, summary')) return
    if (event.key === ' ' && target.closest('input')) return
    if (pressed(event)) event.preventDefault()
  }

  /** Whatever was pressed gives the keyboard back: Enter is to call the next in line, not to press it again. What is written in keeps it, and Tab goes on from there. */
  function freeKeyboard(event: MouseEvent) {
    const pressed = (event.target as HTMLElement).closest('button, a, summary, label, input')
    const control = pressed instanceof HTMLLabelElement ? pressed.control : pressed
    if (!ending.value && control instanceof HTMLElement) setTimeout(() => control.closest(writesText) || control.blur())
  }
  onMounted(() => void loadKeys())
  useEventListener(window, 'keydown', onKey)
  useEventListener(window, 'click', freeKeyboard, { capture: true })
  watch(ending, (open) => open || void freeAfterDialog(), { flush: 'post' })
  useEventListener(window, 'change', (event) => event.target instanceof HTMLSelectElement && event.target.blur())
}
