<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useDone } from '../../ui/done'
import NameField from '../../ui/NameField.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import NewClass from './NewClass.vue'

type ClassLine = Schemas['ClassLine']
const queries = useQueryClient()
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')) })
const terms = useQuery({ queryKey: ['terms'], queryFn: () => ask(api.GET('/api/terms')) })
const { done, problem, tried } = useDone()
const inUse = computed(() => classes.data.value?.filter((c) => !c.archived) ?? [])
const putAway = computed(() => classes.data.value?.filter((c) => c.archived) ?? [])

async function change(line: ClassLine, to: Partial<ClassLine>, said: string) {
  const put = ({ name, termId, archived }: ClassLine) =>
    ask(api.PUT('/api/classes/{id}', { params: { path: { id: line.id } }, body: { name, termId, archived } }))
  const stored = await tried(async () => {
    await put({ ...line, ...to })
    return { said, undo: () => put(line) }
  })
  // The choice of a term goes back to what is stored.
  if (!stored) await queries.invalidateQueries()
}
</script>

<template>
  <Page title="Classes">
    <Notice v-if="classes.error.value" tone="wrong">{{ classes.error.value.message }}</Notice>
    <UndoNote v-model="done" class="mt-3" />
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
    <div v-if="inUse.length" class="relative mt-5 overflow-x-auto">
      <table class="sheet-table max-w-[64rem]">
        <thead>
          <tr>
            <th>Class</th>
            <th>Term</th>
            <th>Students</th>
            <th>Lessons</th>
            <th><span class="sr-only">Acts</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in inUse" :key="c.id">
            <td>
              <NameField
                class="field name font-semibold"
                :name="c.name"
                maxlength="100"
                :aria-label="`Name of ${c.name}`"
                @change="(to) => change(c, { name: to }, `“${c.name}” is called “${to}” now.`)"
              />
            </td>
            <td>
              <select
                class="field"
                :aria-label="`Term of ${c.name}`"
                :value="c.termId ?? ''"
                @change="
                  change(
                    c,
                    { termId: ($event.target as HTMLSelectElement).value || null },
                    `The term of “${c.name}” is changed.`,
                  )
                "
              >
                <option value="">no term</option>
                <option v-for="term in terms.data.value" :key="term.id" :value="term.id">{{ term.name }}</option>
              </select>
            </td>
            <td>{{ c.students }}</td>
            <td>{{ c.lessons }}</td>
            <td class="whitespace-nowrap">
              <RouterLink class="quiet font-semibold" :to="`/classes/${c.id}`" :aria-label="`Open ${c.name}`"
                >Open</RouterLink
              >
              <button
                class="quiet ml-5 text-ink-soft"
                :aria-label="`Put ${c.name} away`"
                @click="change(c, { archived: true }, `“${c.name}” is put away. Nothing of it is lost.`)"
              >
                Put away
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-else-if="classes.data.value" class="mt-3 text-lead text-ink-soft">
      There is no class in use. Name one; its roster comes next.
    </p>
    <NewClass class="mt-8" />
    <p class="mt-6"><RouterLink class="quiet" to="/terms">Terms and days off</RouterLink></p>

    <section v-if="putAway.length" class="mt-8 max-w-[46rem]" aria-labelledby="away">
      <h2 id="away" class="rule-head">Put away</h2>
      <ul>
        <li v-for="c in putAway" :key="c.id" class="rule-line">
          <RouterLink class="flex-1 hover:underline" :to="`/classes/${c.id}`">{{ c.name }}</RouterLink>
          <button class="quiet" @click="change(c, { archived: false }, `“${c.name}” is in use again.`)">
            Take it up again
          </button>
        </li>
      </ul>
    </section>
  </Page>
</template>

<style scoped>
.name {
  border-color: transparent;
  min-width: 15rem;
}
.name:hover,
.name:focus {
  border-color: var(--ink);
}
</style>
