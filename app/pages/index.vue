<template><main>Shells</main></template>
