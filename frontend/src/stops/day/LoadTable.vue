<script setup lang="ts">
import { phrase } from '@/phrases/day'
import LoadRow from './LoadRow.vue'
import { useLoads } from '@/stores/useLoads'

const { loads, figures, remove } = useLoads()
</script>

<template>
  <table class="loads w-full">
    <thead>
      <tr class="text-left text-sm text-soft">
        <th class="w-[18%]">{{ phrase('day.load_table.load') }}</th>
        <th class="w-[4.5rem]">{{ phrase('day.load_table.supply') }}</th>
        <th class="w-[5.2rem]">{{ phrase('day.load_table.power') }}</th>
        <th class="w-[3.3rem]">{{ phrase('day.load_table.how_many') }}</th>
        <th class="w-[5.8rem]">{{ phrase('day.load_table.day') }}</th>
        <th class="w-[14.6rem]">{{ phrase('day.load_table.use') }}</th>
        <th class="w-[4.7rem]">{{ phrase('day.load_table.duty_cycle') }}</th>
        <th class="w-[4.3rem]">{{ phrase('day.load_table.from') }}</th>
        <th class="w-[4.8rem] text-right">{{ phrase('day.load_table.a_day') }}</th>
        <th>{{ phrase('day.load_table.share') }}</th>
        <th class="w-[4.3rem]">
          <span class="sr-only">{{ phrase('day.load_table.details_remove') }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <LoadRow
        v-for="(load, i) in loads"
        :key="load.id"
        :load="load"
        :index="i"
        :figures="figures.get(load.id)"
        @remove="remove(i)"
      />
    </tbody>
  </table>
</template>

<style>
.loads {
  table-layout: fixed;
  border-collapse: collapse;
}
.loads th,
.loads td {
  padding: 0.12rem 0.3rem;
}
.loads th {
  font-weight: 600;
  vertical-align: bottom;
  line-height: 1.2;
}
.loads tbody tr {
  border-top: 1px solid var(--line);
}
.loads tbody tr.problems {
  border-top: 0;
}
.loads tr.problems td {
  padding-bottom: 0.6rem;
}
.loads tbody tr.details {
  border-top: 0;
}
.loads tr.off td:is(.draw, .count, .duty) .field {
  color: var(--soft);
  font-style: italic;
}
.loads td.wh {
  padding-top: 0.6rem;
  text-align: right;
}
.loads td.share {
  padding-top: 0.6rem;
  padding-left: 0.8rem;
}
.loads .unfolds {
  display: none;
}
@media (max-width: 1023px) {
  .loads .unfolds {
    display: inline-grid;
  }
  .loads tbody tr.folded {
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: center;
    padding: 0.3rem 0;
  }
  .loads tr.folded td:not(.name, .wh, .drop) {
    display: none;
  }
  .loads tbody tr.folded td.name {
    grid-column: 1;
  }
  .loads tr.folded td.wh::before {
    display: none;
  }
  .loads tr.folded td.drop {
    white-space: nowrap;
  }
  .loads tr.folded td.drop > :not(.unfolds) {
    display: none;
  }
  .loads,
  .loads tbody {
    display: block;
  }
  .loads thead {
    display: none;
  }
  .loads tbody tr {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 0.35rem 0.5rem;
    padding: 0.9rem 0;
  }
  .loads td {
    padding: 0;
  }
  .loads td[data-label]::before {
    content: attr(data-label);
    display: block;
    font-size: 0.8125rem;
    font-weight: 600;
    color: var(--soft);
  }
  .loads tbody tr.details {
    display: block;
    padding: 0 0 0.8rem;
  }
  .loads tbody tr.problems {
    display: block;
    border: 0;
    padding: 0 0 0.8rem;
  }
  .loads td.name {
    grid-column: span 3;
  }
  .loads td.supply {
    grid-column: span 1;
  }
  .loads td.use {
    grid-column: span 3;
    order: 1;
  }
  .loads td.wh {
    order: 2;
    padding: 0;
    text-align: left;
  }
  .loads td.share,
  .loads td.drop {
    order: 3;
  }
  .loads td.share {
    grid-column: span 2;
    align-self: end;
    padding: 0 0 0.2rem;
  }
  .loads td.drop {
    align-self: end;
    text-align: right;
  }
}
</style>
