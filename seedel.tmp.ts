import { elsewhere } from './demo/elsewhere';
import { listElsewhere } from './demo/list-elsewhere';
const [first='600',count='30']=process.argv.slice(2);
(async()=>{const t=Date.now();const l=elsewhere(Number(count),{markets:['hallowick','shopfront'],seed:9,first:Number(first)});const n=await listElsewhere(`http://127.0.0.1:4450`,'grainhouse',l);console.log(l.length,n.length,(Date.now()-t)/1000);})();
