<script setup lang="ts">
/** The licences of all that is shipped, with their texts. */
const SHIPPED = [
  { what: 'Rust crates in the server', under: 'MIT, Apache 2.0, BSD, ISC, Unicode, Zlib', file: 'server' },
  {
    what: 'Rust crates in the program that makes drawings',
    under: 'MIT, Apache 2.0, MPL 2.0, BSD, ISC, Unicode, Zlib',
    file: 'documents',
  },
  { what: 'Packages in the pages', under: 'MIT', file: 'pages' },
  { what: 'Bootstrap’s styles', under: 'MIT', file: 'bootstrap' },
  { what: 'Tabler icons', under: 'MIT', file: 'tabler-icons' },
  {
    what: 'Atkinson Hyperlegible Next',
    under: 'SIL Open Font License 1.1',
    file: 'atkinson-hyperlegible-next',
  },
  {
    what: 'Countries and how their addresses are written',
    under: 'CC BY 4.0, BSD, MIT, Unicode',
    file: 'countries',
  },
  { what: 'Bricolage Grotesque', under: 'SIL Open Font License 1.1', file: 'bricolage-grotesque' },
  { what: 'Noto Sans, on papers', under: 'SIL Open Font License 1.1', file: 'noto-sans' },
] as const;
</script>

<template>
  <div class="page">
    <h1>Licences</h1>
    <p>Hummock itself is under MIT or Apache 2.0, as you choose. It contains these packages:</p>
    <table>
      <thead>
        <tr>
          <th scope="col">what</th>
          <th scope="col">licence</th>
          <th scope="col">text</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ what, under, file } in SHIPPED" :key="file">
          <td>{{ what }}</td>
          <td>{{ under }}</td>
          <td>
            <a class="alone" :href="`/licences/${file}.txt`"
              >read<span class="visually-hidden"> the licence of {{ what }}</span></a
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.page {
  max-width: 900px;
}
h1 {
  margin: 4px 0;
  font-size: var(--type-title);
}
table {
  width: 100%;
}
</style>
