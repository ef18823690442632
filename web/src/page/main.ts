import { createApp } from 'vue'
import StudentPage from './StudentPage.vue'
import './page.css'

const code = decodeURIComponent(location.pathname.split('/')[2] ?? '')
createApp(StudentPage, { code })
  .provide('pictures', `/api/page/${encodeURIComponent(code)}/pictures`)
  .mount('#page')
