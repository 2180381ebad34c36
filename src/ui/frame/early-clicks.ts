/**
 * A script for the head. A page is seen before its code has come, and its parts come to life one after the other: what
 * is pressed meanwhile would be lost. The last such press is held until its button is alive (React has given it its
 * properties), and carried out once. Should none ever be, presses are let through after some seconds.
 */
export const holdEarlyClicks = `(function(){
var held=null,frames=0;
function alive(b){return Object.keys(b).some(function(k){return k.indexOf('__reactProps$')===0})}
function hold(e){
  var b=e.target.closest&&e.target.closest('button');
  if(!b||alive(b))return;
  e.preventDefault();e.stopImmediatePropagation();
  if(!held)requestAnimationFrame(look);
  held=b;
}
function look(){
  var b=held;
  if(!b.isConnected){held=null;return}
  if(!alive(b)){
    if(++frames<600){requestAnimationFrame(look);return}
    removeEventListener('click',hold,true);
  }
  held=null;b.click();
}
addEventListener('click',hold,true);
})()`;
