<script setup lang="ts">
import { phrase } from '@/phrases/day'
import { usePlan } from '@/stores/plan'
import { useLoads } from '@/stores/useLoads'
import FigureLink from '@/ui/FigureLink.vue'
import { computed, onUnmounted } from 'vue'
import LoadRow from './LoadRow.vue'

/** The loads of a day, each in one line until it is opened, and what comes on top: the column adds up. */
const plan = usePlan()
const { loads, figures, opened, remove } = useLoads()
onUnmounted(() => (opened.value = ''))
const day = computed(() => plan.rig!.day)
const besides = computed(() =>
  [
    { name: phrase('day.load_table.inverter_idle'), figure: day.value.idle },
    { name: phrase('day.load_table.standby'), figure: day.value.standby },
  ].filter((b) => b.figure.value),
)
</script>

<template>
  <table class="loads w-full">
    <thead>
      <tr class="text-left text-sm text-soft">
        <th class="w-[24%]">{{ phrase('day.load_table.load') }}</th>
        <th>{{ phrase('day.load_table.use_on_day') }}</th>
        <th class="w-[8rem] text-right">{{ phrase('day.load_table.a_day') }}</th>
        <th class="w-[9.5rem] pl-4">{{ phrase('day.load_table.share') }}</th>
        <th class="w-[5rem]">
          <span class="sr-only">{{ phrase('day.load_table.open_column') }}</span>
        </th>
      </tr>
    </thead>
    <LoadRow
      v-for="(load, i) in loads"
      :key="load.id"
      v-model:opened="opened"
      :load="load"
      :index="i"
      :figures="figures.get(load.id)"
      @remove="remove(i)"
    />
    <tfoot>
      <tr v-for="b in besides" :key="b.name" class="besides text-soft">
        <th scope="row" colspan="2">{{ b.name }}</th>
        <td class="wh"><FigureLink :figure="b.figure" :name="b.name" /></td>
      </tr>
      <tr class="besides" data-listed>
        <th scope="row" colspan="2">{{ phrase('day.load_table.total') }}</th>
        <td class="wh font-semibold">
          <FigureLink :figure="day.listed" :name="phrase('day.load_table.total')" />
        </td>
      </tr>
    </tfoot>
  </table>
</template>

<style>
.loads {
  table-layout: fixed;
  border-collapse: collapse;
}
.loads th,
.loads td {
  padding: 0.35rem 0.4rem;
}
.loads th {
  font-weight: 600;
  vertical-align: bottom;
  line-height: 1.2;
}
.loads .load {
  border-top: 1px solid var(--line);
}
.loads .folded .line {
  cursor: pointer;
}
.loads .folded:hover,
.loads .open {
  background: var(--wash);
}
.loads .off .says {
  font-style: italic;
}
.loads td.wh {
  text-align: right;
  white-space: nowrap;
}
.loads td.share {
  padding-left: 1rem;
}
.loads tr.fields > td {
  padding: 0 0.4rem 0.7rem;
}
.loads .besides th {
  text-align: left;
  font-weight: inherit;
}
.loads tfoot tr:first-child {
  border-top: 1px solid var(--line);
}
.loads tr[data-listed] th {
  font-weight: 600;
}
.loads .grid-fields {
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 0.5rem 0.75rem;
}
.loads .grid-fields > [data-label]::before {
  content: attr(data-label);
  display: block;
  font-size: 0.8125rem;
  font-weight: 600;
  color: var(--soft);
}
.loads .grid-fields > .name {
  width: 13rem;
}
.loads .grid-fields > .supply {
  width: 4.5rem;
}
.loads .grid-fields > .draw {
  width: 6rem;
}
.loads .grid-fields > .count,
.loads .grid-fields > .from {
  width: 5rem;
}
.loads .grid-fields > .on {
  width: 6.5rem;
}
.loads .grid-fields > .use {
  width: 15rem;
}
.loads .grid-fields > .duty {
  width: 5.5rem;
}
@media (max-width: 1023px) {
  .loads,
  .loads tbody,
  .loads tfoot {
    display: block;
  }
  .loads thead {
    display: none;
  }
  .loads thead + .load {
    border-top: 0;
  }
  .loads th,
  .loads td {
    padding: 0;
  }
  .loads .line,
  .loads .besides {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 0 0.6rem;
    padding: 0.5rem 0.2rem;
  }
  .loads .line td.use {
    grid-row: 2;
    grid-column: 1 / -1;
  }
  .loads .line td.share {
    display: none;
  }
  .loads tr.fields,
  .loads tr.details,
  .loads tr.problems {
    display: block;
  }
  .loads tr.fields > td,
  .loads tr.problems > td,
  .loads tr.details > td {
    display: block;
    padding: 0 0.2rem 0.8rem;
  }
  .loads .grid-fields > .name {
    width: 100%;
  }
  .loads .grid-fields > .use {
    width: 100%;
    max-width: 20rem;
  }
}
</style>
