/** Bars, for the pictures that have them. */
import { BarChart } from 'echarts/charts'
import { use } from 'echarts/core'

use([BarChart])
