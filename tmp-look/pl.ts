import { carriedPlan, matchesOf } from '/work/main/core/plan/compile'
import { mergeSources } from '/work/main/core/plan/sources'
import { recommendedPlan } from '/work/main/core/plan/document'
import { inCourseOrder } from '/work/main/core/course/outline'
import { item, unit } from '/work/main/tests/support/outline'
const nodes = inCourseOrder(Array.from({length:20},(_,u)=>[unit('u'+u,{position:u,title:'Unit '+u}), ...Array.from({length:100},(_,n)=>item(`i${u}-${n}`,{parent:'u'+u,position:n,kind:'assignment',points:100000}))]).flat())
const side = (n:any) => ({ nodes:n, categories:[], grading:null, rubrics:[], groups:[], furniture:[] })
const source = side(nodes), target = side([])
const merged = mergeSources([source] as any)
const doc = recommendedPlan()
const base:any = { document: doc, source, more:[], target, before:{bases:[],deleted:[]}, inPlace:false }
const matches = matchesOf(base, merged, {})
const t:number[]=[]
for (let n=0;n<60;n++){ const leave = n%2 ? nodes.filter(x=>x.unit==='u0').map(x=>x.lineage) : []
 const s=performance.now(); carriedPlan({...base, document:{...doc, carry:{...doc.carry, leave}}}, {merged, matches, dates:null}); t.push(performance.now()-s) }
console.log('first', t.slice(0,6).map(x=>x.toFixed(1)).join(' '), 'last', t.slice(-6).map(x=>x.toFixed(1)).join(' '))
