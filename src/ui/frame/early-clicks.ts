export const readyEvent = 'netting:ready';

/**
 * A script for the head. A page is seen before its code has come: what is pressed meanwhile would be lost. The last such
 * press is held from the first paint on, and carried out once when the page says that it is ready.
 */
export const holdEarlyClicks = `(function(){var held;function hold(e){var b=e.target.closest&&e.target.closest('button,[role=button]');if(!b)return;e.preventDefault();e.stopImmediatePropagation();held=b}addEventListener('click',hold,true);addEventListener('${readyEvent}',function(){removeEventListener('click',hold,true);if(held&&held.isConnected)held.click()},{once:true})})()`;
