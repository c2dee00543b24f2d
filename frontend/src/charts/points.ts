/** Marked points on lines, for the pictures that have them. */
import { MarkPointComponent } from 'echarts/components'
import { use } from 'echarts/core'

use([MarkPointComponent])
