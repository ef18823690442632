<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '../../api/client'
import { count, hour, weekDay } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import KeyCap from '../../ui/KeyCap.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const queries = useQueryClient()
const page = useQuery({
  queryKey: ['class', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: props.id } } })),
})
const title = ref('')
const length = ref(50)
const problem = ref<string>()
const live = computed(() => page.data.value?.lessons.find((l) => l.stage === 'live'))
const stages = { planned: 'planned', live: 'live now', ended: 'to settle', settled: 'settled' }

async function start() {
  problem.value = undefined
  try {
    const params = { path: { id: props.id } }
    const lesson = await ask(
      api.POST('/api/classes/{id}/lessons', { params, body: { title: title.value || null, minutes: length.value } }),
    )
    await queries.invalidateQueries()
    await router.push(`/lessons/${lesson.id}/live`)
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="page.data.value?.name" /></template>
    <Notice v-if="page.error.value" tone="wrong">{{ page.error.value.message }}</Notice>
    <div v-if="page.data.value" class="columns">
      <section aria-labelledby="lessons">
        <form
          v-if="!live && page.data.value.students.length"
          class="mb-6 flex flex-wrap items-end gap-5"
          @submit.prevent="start"
        >
          <label class="min-w-[12rem] flex-1"
            >A lesson now<input v-model="title" class="field" maxlength="100" placeholder="What it is about"
          /></label>
          <label class="w-24"
            >Minutes<input v-model.number="length" class="field" type="number" min="5" max="600" required
          /></label>
          <button class="press-first">Start it</button>
        </form>
        <p v-if="live" class="mb-6">
          Lesson {{ live.number }} is <span class="marked">live now</span>.
          <RouterLink class="press-first ml-3 inline-block" :to="`/lessons/${live.id}/live`">Go to it</RouterLink>
        </p>
        <Notice v-if="problem" tone="wrong" class="mb-4">{{ problem }}</Notice>
        <h1 id="lessons" class="head">{{ count(page.data.value.lessons.length, 'lesson') }}</h1>
        <ol>
          <li v-for="lesson in page.data.value.lessons" :key="lesson.id" class="line">
            <span class="w-6 shrink-0 font-semibold">{{ lesson.number }}</span>
            <span class="w-[92px] shrink-0">{{ weekDay(lesson.plannedStart) }}</span>
            <RouterLink
              class="min-w-0 flex-1 font-semibold hover:underline"
              :to="
                lesson.stage === 'live' || lesson.stage === 'planned'
                  ? `/lessons/${lesson.id}/live`
                  : `/lessons/${lesson.id}/settle`
              "
              >{{ lesson.title }}</RouterLink
            >
            <span class="text-ink-soft">{{ hour(lesson.plannedStart) }}</span>
            <span class="w-[66px] shrink-0 text-ink-soft"
              ><span :class="{ marked: lesson.stage === 'live' }">{{ stages[lesson.stage] }}</span></span
            >
          </li>
        </ol>
      </section>

      <section aria-labelledby="roster">
        <EmptyState v-if="!page.data.value.students.length" title="The roster is empty">
          Bring in a list of students as a CSV file: any columns, any order. You will see it before anything is stored.
          <template #act
            ><RouterLink class="press-first inline-block" :to="`/classes/${id}/roster`"
              >Bring in a roster</RouterLink
            ></template
          >
        </EmptyState>
        <template v-else>
          <div class="head flex items-baseline justify-between">
            <h2 id="roster">{{ count(page.data.value.students.length, 'student') }}</h2>
            <RouterLink class="quiet text-small font-normal" :to="`/classes/${id}/roster`"
              >Bring in a roster</RouterLink
            >
          </div>
          <ol>
            <li v-for="student in page.data.value.students" :key="student.id" class="line">
              <KeyCap class="w-4 shrink-0" :k="student.key" />
              <span class="min-w-0 flex-1"
                ><b class="font-semibold">{{ student.called }}</b> {{ student.family
                }}<i v-if="student.called !== student.given" class="text-ink-soft"> ({{ student.given }})</i></span
              >
              <span class="text-small text-ink-soft">{{ student.tags.split(';').join(', ') }}</span>
              <span class="w-14 text-end text-small text-ink-soft">{{ student.number }}</span>
            </li>
          </ol>
        </template>
      </section>
    </div>
  </Page>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 44px;
  max-width: 1180px;
}
.head {
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 3px;
  font-weight: 650;
}
.line {
  display: flex;
  align-items: baseline;
  gap: 12px;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0 3px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
