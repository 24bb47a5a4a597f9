<template>
  <div class="page">
    <h1>There is nothing at this address</h1>
    <p>It may have been mistyped. <RouterLink to="/">Back to the bench</RouterLink></p>
  </div>
</template>
