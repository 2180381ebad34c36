import type { TraitKey } from './traits';

/** A kind of goods: its branch, three names that marketplaces give it, and what is said of it. */
export type Good = { key: string; branch: Branch; names: [string, string, string]; traits: TraitKey[] };
export type Branch =
  | 'cameras'
  | 'lenses'
  | 'film'
  | 'darkroom'
  | 'accessories'
  | 'clothing'
  | 'home'
  | 'books'
  | 'collectables'
  | 'art';

/** Three names of every branch. */
export const branches: Record<Branch, [string, string, string]> = {
  cameras: ['Cameras', 'Photo cameras', 'Film cameras'],
  lenses: ['Lenses', 'Camera lenses', 'Optics'],
  film: ['Film', 'Rolls and sheets of film', 'Film stock'],
  darkroom: ['Darkroom', 'Developing and enlarging', 'Darkroom and chemistry'],
  accessories: ['Photo accessories', 'Camera accessories', 'Bags, straps and more'],
  clothing: ['Clothing', 'Clothes', 'Wardrobe'],
  home: ['Home', 'House and home', 'Living'],
  books: ['Books', 'Books and paper', 'Reading'],
  collectables: ['Collectables', 'Things to collect', 'Collecting'],
  art: ['Art', 'Pictures', 'Wall art'],
};

const body: TraitKey[] = ['format', 'model', 'mount', 'colour', 'decade', 'country', 'tested', 'year'];
const glass: TraitKey[] = ['mount', 'focal', 'aperture', 'thread', 'colour', 'decade', 'model', 'tested'];
const roll: TraitKey[] = ['format', 'speed', 'exposures', 'country'];
const tool: TraitKey[] = ['material', 'colour', 'contents', 'tested', 'decade'];
const worn: TraitKey[] = ['size', 'colour', 'material', 'wearer', 'season', 'pattern'];
const house: TraitKey[] = ['material', 'colour', 'width', 'height', 'decade'];
const paper: TraitKey[] = ['language', 'author', 'binding', 'pages', 'year'];
const kept: TraitKey[] = ['theme', 'decade', 'rarity', 'country', 'material'];
const hung: TraitKey[] = ['frame', 'subject', 'width', 'height', 'colour'];

const of = (branch: Branch, shared: TraitKey[], rows: [string, string, string, string, ...TraitKey[]][]): Good[] =>
  rows.map(([key, first, second, third, ...own]) => ({
    key,
    branch,
    names: [first, second, third],
    traits: [...own.filter((trait) => !shared.includes(trait)), ...shared],
  }));

/** What is traded: sixty-six kinds. */
export const goods: Good[] = [
  ...of('cameras', body, [
    ['slr', 'Film SLR cameras', 'Single-lens reflex', 'Mirror reflex cameras'],
    ['rangefinder', 'Rangefinder cameras', 'Rangefinders', 'Viewfinder cameras with rangefinder'],
    ['compact', 'Compact film cameras', 'Compacts', 'Pocket cameras'],
    ['box', 'Box and medium format cameras', 'Box and roll film cameras', 'Medium format'],
    ['folding', 'Folding cameras', 'Bellows folders', 'Folding and bellows'],
    ['instant', 'Instant cameras', 'Instant picture cameras', 'Instant'],
    ['cine', 'Cine cameras', 'Movie cameras on film', 'Cine'],
    ['large', 'Large format cameras', 'View cameras', 'Sheet film cameras'],
  ]),
  ...of('lenses', glass, [
    ['slr-lens', 'SLR lenses', 'Lenses for reflex cameras', 'Reflex optics'],
    ['rf-lens', 'Rangefinder lenses', 'Lenses for rangefinders', 'Rangefinder optics'],
    ['enlarger-lens', 'Enlarger lenses', 'Lenses for enlargers', 'Enlarging optics'],
    ['projector-lens', 'Projector lenses', 'Lenses for projectors', 'Projection optics'],
  ]),
  ...of('film', roll, [
    ['colour-film', 'Colour film', 'Colour rolls', 'Colour negative and slide'],
    ['bw-film', 'Black and white film', 'Black and white rolls', 'Monochrome film'],
    ['instant-film', 'Instant film', 'Instant packs', 'Instant picture packs'],
    ['cine-film', 'Cine film', 'Movie film', 'Cine reels'],
  ]),
  ...of('darkroom', tool, [
    ['tank', 'Developing tanks', 'Tanks and reels', 'Tanks', 'format'],
    ['enlarger', 'Enlargers', 'Enlarging machines', 'Enlargers and heads', 'format', 'model'],
    ['trays', 'Trays and tools', 'Trays, tongs and measures', 'Trays'],
    ['outfit', 'Darkroom outfits', 'Complete darkrooms', 'Darkroom sets'],
    ['photo-paper', 'Photographic paper', 'Printing paper', 'Paper to print on', 'width', 'height'],
    ['safelight', 'Safelights', 'Darkroom lamps', 'Safelights and timers', 'power'],
  ]),
  ...of(
    'accessories',
    ['material', 'colour', 'model', 'decade'],
    [
      ['strap', 'Camera straps', 'Straps', 'Neck and wrist straps', 'length'],
      ['bag', 'Camera bags and cases', 'Bags and cases', 'Camera bags', 'width', 'height'],
      ['meter', 'Light meters', 'Exposure meters', 'Meters', 'power', 'tested'],
      ['flash', 'Flashes', 'Flash guns', 'Flash', 'power', 'tested'],
      ['tripod', 'Tripods', 'Tripods and heads', 'Stands and tripods', 'height'],
      ['filter', 'Filters', 'Lens filters', 'Screw-in filters', 'thread'],
      ['hood', 'Lens hoods and caps', 'Hoods and caps', 'Caps and hoods', 'thread'],
      ['projector', 'Slide projectors', 'Projectors', 'Slide machines', 'power', 'tested'],
    ],
  ),
  ...of('clothing', worn, [
    ['coat', 'Coats and jackets', 'Jackets', 'Outerwear'],
    ['shirt', 'Shirts', 'Shirts and blouses', 'Tops'],
    ['knit', 'Knitwear', 'Jumpers and cardigans', 'Knits'],
    ['trousers', 'Trousers', 'Trousers and jeans', 'Bottoms'],
    ['dress', 'Dresses', 'Dresses and skirts', 'Dresses'],
    ['shoe', 'Shoes', 'Shoes and boots', 'Footwear'],
    ['scarf', 'Scarves and gloves', 'Scarves', 'Scarves and gloves'],
    ['hat', 'Hats and caps', 'Hats', 'Headwear'],
  ]),
  ...of('home', house, [
    ['lamp', 'Lamps', 'Lamps and lights', 'Lighting', 'power'],
    ['vase', 'Vases', 'Vases and bowls', 'Vases'],
    ['clock', 'Clocks', 'Clocks and alarm clocks', 'Clocks', 'power'],
    ['textile', 'Cushions and textiles', 'Cushions', 'Textiles'],
    ['kitchen', 'Kitchenware', 'Kitchen things', 'Kitchen', 'pieces'],
    ['decoration', 'Decoration', 'Ornaments', 'Decoration and ornaments'],
  ]),
  ...of('books', paper, [
    ['manual', 'Photography manuals', 'Manuals and guides', 'Handbooks and instructions'],
    ['photo-book', 'Photography books', 'Books of photographs', 'Photo books'],
    ['technique', 'Craft and technique books', 'Technique', 'How-to books'],
    ['novel', 'Novels', 'Fiction', 'Novels and stories'],
    ['children', 'Children’s books', 'Books for children', 'Children'],
    ['magazine', 'Magazines', 'Magazines and journals', 'Periodicals'],
    ['map', 'Maps and atlases', 'Maps', 'Maps and charts'],
  ]),
  ...of('collectables', kept, [
    ['stamp', 'Stamps', 'Postage stamps', 'Stamps and covers'],
    ['coin', 'Coins', 'Coins and notes', 'Coins'],
    ['postcard', 'Postcards', 'Picture postcards', 'Cards and postcards'],
    ['badge', 'Badges and pins', 'Pins', 'Badges'],
    ['toy', 'Old toys', 'Tin and wooden toys', 'Toys', 'power'],
    ['model-kit', 'Model kits', 'Kits and bricks', 'Building sets', 'pieces'],
    ['record', 'Records', 'Vinyl records', 'Records and tapes'],
    ['advert', 'Advertising signs', 'Old adverts', 'Signs', 'width', 'height'],
  ]),
  ...of('art', hung, [
    ['framed', 'Framed prints', 'Framed pictures', 'Prints in frames', 'material'],
    ['unframed', 'Unframed prints', 'Prints without frame', 'Loose prints'],
    ['poster', 'Posters', 'Posters', 'Posters and banners'],
    ['painting', 'Paintings', 'Painted pictures', 'Paintings'],
    ['drawing', 'Drawings', 'Drawings and sketches', 'Drawings'],
    ['canvas', 'Canvas prints', 'Prints on canvas', 'Canvas', 'material'],
    ['photo-print', 'Photographic prints', 'Photo prints', 'Photographs'],
  ]),
];
