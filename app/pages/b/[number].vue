<template>
  <ByNumber kind="batch" :number="String($route.params.number)" />
</template>
