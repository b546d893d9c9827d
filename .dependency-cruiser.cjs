// What may import what, of values (types may go in circles: nothing of them is there when it runs). `npm run lint` looks.
const oneWay = (name, from, to, comment) => ({
  name,
  comment,
  severity: 'error',
  from: { path: `^server/${from}/` },
  to: { path: `^server/(${to})/` },
})
module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      comment: 'Files that import values of each other cannot be read, tested or loaded one by one.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    oneWay(
      'plans-know-no-runs',
      'plans',
      'runs|student-data|batches|work',
      'A plan is read and saved without whoever runs it, searches it or clears for it: these know the plan.',
    ),
    oneWay('facts-of-runs', 'run-facts', 'plans|runs', 'What is told of runs rests on their rows alone.'),
    oneWay(
      'student-data-knows-no-runs',
      'student-data',
      'runs|batches|work',
      'A run asks what is to be cleared and searched, not the other way.',
    ),
    oneWay(
      'jobs-know-no-kinds',
      'jobs',
      'batches|courses|exchange|mail|plans|registrar|runs|search|student-data|work',
      'Jobs are held and ended here; what they do is defined beside it, and listed in server/work.',
    ),
  ],
  options: {
    tsPreCompilationDeps: false,
    tsConfig: { fileName: 'tsconfig.node.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(\\.nuxt|\\.output|node_modules)/' },
    enhancedResolveOptions: { extensions: ['.ts', '.mjs', '.js', '.vue'] },
  },
}
