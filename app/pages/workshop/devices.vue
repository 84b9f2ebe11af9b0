<script setup lang="ts">
useHead({ title: 'Devices · Dulse' })
</script>

<template>
  <div class="stack">
    <DevicesCard />
    <section class="card">
      <h2>Home network</h2>
      <p class="quiet">Phones and tablets of the house, let in one by one; keys for scales; open or closed.</p>
      <OwnDevice />
      <div class="row"><ElButton @click="navigateTo('/home')">Home network</ElButton></div>
    </section>
  </div>
</template>
