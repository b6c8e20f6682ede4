<template>
  <section class="nowhere">
    <h2>{{ $t('frame-nowhere-view-page-not-found') }}</h2>
    <router-link class="quiet-button" to="/formula">{{ $t('frame-nowhere-view-go-to-formulas') }}</router-link>
  </section>
</template>

<style scoped>
.nowhere {
  margin: 16vh auto 0;
  padding: 0 24px;
  max-width: 520px;
}

h2 {
  margin-bottom: 16px;
  font-size: 24px;
}

a {
  text-decoration: none;
}
</style>
