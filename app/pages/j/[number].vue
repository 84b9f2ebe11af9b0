<template>
  <ByNumber kind="jar" :number="String($route.params.number)" />
</template>
