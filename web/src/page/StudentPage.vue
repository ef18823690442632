<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watchEffect } from 'vue'
import BoardSheet from '../features/board/BoardSheet.vue'
import QuestionOnPage from './QuestionOnPage.vue'
import { usePage } from './page'

// Not needed to take part, so the page does not wait for it.
const OwnScores = defineAsyncComponent(() => import('./OwnScores.vue'))

/** A student's own page of a lesson: hand, answers, words, signals, and what is on the board. */
const props = defineProps<{ code: string }>()
const page = usePage(props.code)
const { lesson, own, now, door, byName, problem, away, act, waits, handUp } = page

const typedCode = ref('')
const goTo = () => (location.href = `/p/${encodeURIComponent(typedCode.value.trim())}`)
const pass = ref('')
const name = ref('')
const remember = ref(false)
const entering = ref(false)
async function enter() {
  entering.value = true
  await page.enter(pass.value.trim() || null, pass.value.trim() ? null : name.value.trim(), remember.value)
  entering.value = false
  pass.value = ''
}

const text = ref('')
const kind = ref<'question' | 'answer' | 'idea'>('question')
const kinds = [
  { kind: 'question', label: 'a question' },
  { kind: 'answer', label: 'an answer' },
  { kind: 'idea', label: 'an idea' },
] as const
function write() {
  if (!text.value.trim()) return
  act({ doing: 'write', text: text.value.trim(), kind: kind.value })
  text.value = ''
}

const handTo = ref('')
function handOn() {
  act({ doing: 'handOn', to: handTo.value })
  handTo.value = ''
}

const live = computed(() => lesson.value?.stage === 'live')
const open = computed(() => own.value?.questions.filter((q) => q.open) ?? [])
const past = computed(() => own.value?.questions.filter((q) => !q.open) ?? [])
const ordinal = (n: number) => {
  const end = n % 100 > 10 && n % 100 < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th')
  return `${n}${end}`
}
/** The board without what stands on the page anyway. */
const board = computed(() => lesson.value && { ...lesson.value.board, questions: null, wayIn: null, nods: null })
const somethingUp = computed(() =>
  Object.entries(board.value ?? {}).some(([part, up]) => part !== 'now' && up !== null),
)
watchEffect(() => {
  if (lesson.value) document.title = `${lesson.value.title} · Polite Tally`
})
</script>

<template>
  <main v-if="!code" class="door">
    <h1>Your lesson</h1>
    <form @submit.prevent="goTo">
      <label
        >The code of the lesson<input v-model="typedCode" autocomplete="off" autocapitalize="off" required
      /></label>
      <button class="first">Go on</button>
    </form>
  </main>

  <main v-else-if="door === 'asking'" class="door"><p>Opening the lesson…</p></main>

  <main v-else-if="door === 'closed'" class="door">
    <h1>Come in</h1>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>
    <form @submit.prevent="enter">
      <label
        >Your pass<input
          v-model="pass"
          placeholder="tavo-kile-muna"
          autocomplete="off"
          autocapitalize="off"
          spellcheck="false"
          :required="!byName"
      /></label>
      <label v-if="byName"
        >or your name, if you have no pass<input v-model="name" maxlength="100" autocomplete="name"
      /></label>
      <label class="check"><input v-model="remember" type="checkbox" /> Remember me on this device</label>
      <button class="first" :disabled="entering">Come in</button>
    </form>
  </main>

  <main v-else-if="own">
    <header>
      <p v-if="lesson" class="soft">{{ lesson.className }}</p>
      <h1>{{ lesson?.title ?? 'Your lesson' }}</h1>
      <p class="who">
        <b>{{ own.called }}</b><template v-if="own.group">, {{ own.group }}</template>
        <button class="quiet" @click="page.leave">not you?</button>
      </p>
    </header>
    <p v-if="away" class="away" role="status">No connection. What you do is kept and goes out by itself.</p>
    <p v-if="problem" class="wrong" role="alert">{{ problem }}</p>

    <p v-if="own.standing === 'waiting'" class="lead" role="status">Your teacher will let you in. Wait here.</p>
    <p v-else-if="own.standing === 'turnedAway'" class="lead" role="status">
      Your teacher did not let you in. Ask them, or come in with your pass.
    </p>
    <p v-else-if="!lesson" class="lead" role="status">The lesson is coming…</p>
    <p v-else-if="lesson.stage === 'planned'" class="lead" role="status">
      The lesson has not begun. This page goes on by itself.
    </p>
    <p v-else-if="!live" class="lead" role="status">The lesson is over.</p>
    <template v-else>
      <section class="hand" :class="{ turn: own.onTurn }" aria-live="polite">
        <p v-if="own.onTurn" class="lead">It is your turn.</p>
        <p v-else-if="own.hand" class="lead">
          {{ own.hand.ready ? 'You are ready' : 'Your hand is up' }}: {{ ordinal(own.hand.place) }} of
          {{ own.hand.of }}.
        </p>
        <p v-else-if="handUp" class="lead pencil">Your hand goes up…</p>
        <form v-if="own.mayHandOnTo?.length" class="row" @submit.prevent="handOn">
          <label class="row"
            >Hand on to
            <select v-model="handTo" required>
              <option value="" disabled>choose somebody</option>
              <option v-for="c in own.mayHandOnTo" :key="c.student" :value="c.student">{{ c.name }}</option>
            </select></label
          >
          <button class="first" :disabled="waits('handOn')">Hand on</button>
        </form>
        <p class="row">
          <button v-if="!handUp" class="first" @click="act({ doing: 'raiseHand' })">Raise your hand</button>
          <button v-if="!handUp" class="quiet" @click="act({ doing: 'sayReady' })">I am ready</button>
          <button v-if="handUp" class="first" @click="act({ doing: 'lowerHand' })">
            {{ waits('lowerHand') ? 'Going down…' : 'Take it down' }}
          </button>
        </p>
      </section>

      <p v-if="own.nods.length" class="line" role="status">
        <b>A nod for you:</b> {{ own.nods.at(-1)
        }}<template v-if="own.nods.length > 1">; before that: {{ own.nods.slice(0, -1).reverse().join(', ') }}</template
        >.
      </p>

      <section v-if="lesson.signals" aria-label="Your signal">
        <p class="lead">{{ lesson.board.statement?.text ?? 'Show where you are' }}</p>
        <p class="row">
          <button
            v-for="signal in lesson.signals"
            :key="signal"
            :aria-pressed="own.signal === signal"
            @click="act({ doing: 'signal', text: signal })"
          >
            {{ signal }}
          </button>
        </p>
      </section>

      <QuestionOnPage
        v-for="q in open"
        :key="q.asking"
        :question="q"
        :now="now"
        :on-its-way="page.onItsWay(q.asking)"
        :answered-here="page.answeredHere(q.asking)"
        @act="act"
      />

      <section v-if="somethingUp && board" class="on-board" aria-label="On the board">
        <h2>On the board</h2>
        <BoardSheet :board="board" :now="now" flows />
      </section>

      <section aria-label="Write">
        <form class="write" @submit.prevent="write">
          <label for="write">Write to your teacher</label>
          <textarea id="write" v-model="text" rows="2" maxlength="500" />
          <p class="row">
            <label v-for="k in kinds" :key="k.kind" class="check"
              ><input v-model="kind" type="radio" name="kind" :value="k.kind" /> {{ k.label }}</label
            >
            <button :disabled="!text.trim()">Send</button>
          </p>
        </form>
        <p v-for="w in page.writing.value" :key="w.id" class="line">
          <bdi>{{ w.act.text }}</bdi> <span class="soft">{{ w.act.kind }}, on its way</span>
        </p>
        <p v-for="m in own.wrote" :key="m.message" class="line">
          <bdi>{{ m.text }}</bdi>
          <span class="soft">{{ m.kind }}, {{ m.shown ? 'shown to the class' : 'between you two' }}</span>
        </p>
      </section>

      <section v-if="lesson.said.length" aria-label="Said in class">
        <h2>From the class</h2>
        <p v-for="m in lesson.said" :key="m.message" class="line">
          <b v-if="m.who">{{ m.who }}</b> <bdi>{{ m.text }}</bdi>
        </p>
      </section>
    </template>

    <section v-if="past.length && own.standing === 'in'" aria-label="Questions before">
      <h2>Before</h2>
      <QuestionOnPage
        v-for="q in past"
        :key="q.asking"
        :question="q"
        :now="now"
        :answered-here="page.answeredHere(q.asking)"
      />
    </section>
    <OwnScores v-if="own.seesScores" :code="code" />
    <section v-if="own.strokes" aria-label="Noted of you today">
      <h2>Noted of you today</h2>
      <p>
        Spoken {{ own.strokes.speaking }}, answered {{ own.strokes.questions }} of {{ own.strokes.asked }}, written
        {{ own.strokes.chat }}, nods {{ own.strokes.nods }}.
      </p>
    </section>
  </main>
</template>
