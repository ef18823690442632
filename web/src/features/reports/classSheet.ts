import { useQuery } from '@tanstack/vue-query'
import { api, ask } from '../../api/client'

/** The sheet of scores of a class, from which students, lessons and terms are chosen. */
export const useClassSheet = (id: string) =>
  useQuery({
    queryKey: ['scores', id, {}],
    queryFn: () => ask(api.GET('/api/classes/{id}/scores', { params: { path: { id } } })),
  })
