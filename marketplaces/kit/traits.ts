/** A property of goods: three ways in which marketplaces name it, and the values they choose from (null: free text). */
export type Trait = { names: [string, string, string]; values: string[] | null; other?: string[]; max?: number };

const yesNo = ['Yes', 'No'];

export const traits = {
  colour: {
    names: ['Colour', 'Main colour', 'Shade'],
    values: ['Black', 'Silver', 'Brown', 'White', 'Green', 'Blue', 'Red', 'Grey', 'Yellow', 'Multicoloured'],
    other: ['Jet', 'Silver', 'Brown', 'White', 'Green', 'Blue', 'Red', 'Grey', 'Yellow', 'Mixed'],
  },
  material: {
    names: ['Material', 'Made of', 'Material'],
    values: ['Leather', 'Cotton', 'Nylon', 'Hemp', 'Wood', 'Metal', 'Brass', 'Paper', 'Glass', 'Wool', 'Plastic'],
  },
  format: {
    names: ['Film format', 'Format', 'Film size'],
    values: ['35 mm', '120', '110', 'Sheet 4×5', 'Instant', 'Other'],
    other: ['Small picture 35 mm', 'Roll film 120', 'Cassette 110', 'Sheet film', 'Instant', 'Other'],
  },
  mount: {
    names: ['Lens mount', 'Mount', 'Bayonet'],
    values: ['Brask K', 'Orvane M', 'Tessaly L', 'Screw 42', 'Fixed', 'Other'],
  },
  model: { names: ['Model', 'Model name', 'Model'], values: null, max: 65 },
  decade: {
    names: ['Decade', 'Made in the', 'Era'],
    values: ['2020s', '2010s', '2000s', '1990s', '1980s', '1970s', '1960s', '1950s', '1940s', 'Before 1940'],
  },
  country: { names: ['Country of origin', 'Origin', 'Made in'], values: null, max: 40 },
  tested: { names: ['Tested', 'Tried out', 'Works'], values: yesNo },
  focal: { names: ['Focal length', 'Focal length in mm', 'Focal length'], values: null, max: 30 },
  aperture: { names: ['Largest aperture', 'Aperture', 'Speed of lens'], values: null, max: 20 },
  thread: { names: ['Filter thread', 'Thread', 'Filter size'], values: null, max: 20 },
  speed: { names: ['Film speed', 'ISO', 'Sensitivity'], values: null, max: 20 },
  exposures: { names: ['Exposures', 'Frames', 'Pictures per roll'], values: null, max: 20 },
  length: { names: ['Length', 'Total length', 'Length'], values: null, max: 30 },
  width: { names: ['Width', 'Width in cm', 'Breadth'], values: null, max: 30 },
  height: { names: ['Height', 'Height in cm', 'Height'], values: null, max: 30 },
  contents: { names: ['Contents', 'In the box', 'Parts'], values: null, max: 200 },
  author: { names: ['Author', 'Written by', 'Author'], values: null, max: 65 },
  language: { names: ['Language', 'Written in', 'Language'], values: ['English', 'German', 'French', 'Other'] },
  binding: { names: ['Binding', 'Cover', 'Binding'], values: ['Paperback', 'Hardback', 'Leaflet'] },
  pages: { names: ['Pages', 'Number of pages', 'Pages'], values: null, max: 10 },
  year: { names: ['Year', 'Year made', 'Year'], values: null, max: 10 },
  frame: { names: ['Frame', 'Framing', 'Frame'], values: ['Framed', 'Unframed', 'Mounted'] },
  subject: {
    names: ['Subject', 'Motif', 'Shows'],
    values: ['Harbour', 'Sea', 'Town', 'Landscape', 'People', 'Abstract', 'Other'],
  },
  size: { names: ['Size', 'Clothing size', 'Size'], values: ['XS', 'S', 'M', 'L', 'XL', 'One size'] },
  wearer: { names: ['For whom', 'Worn by', 'For'], values: ['Women', 'Men', 'Children', 'Anyone'] },
  season: { names: ['Season', 'Season', 'Worn in'], values: ['Summer', 'Winter', 'All year'] },
  pattern: { names: ['Pattern', 'Pattern', 'Look'], values: ['Plain', 'Striped', 'Checked', 'Flowered', 'Other'] },
  power: { names: ['Power', 'Runs on', 'Power'], values: ['Battery', 'Mains', 'Clockwork', 'None'] },
  pieces: { names: ['Pieces', 'Number of pieces', 'Pieces'], values: null, max: 10 },
  theme: { names: ['Theme', 'Theme', 'About'], values: null, max: 60 },
  rarity: { names: ['How rare', 'Rarity', 'Rarity'], values: ['Common', 'Uncommon', 'Rare'] },
} satisfies Record<string, Trait>;

export type TraitKey = keyof typeof traits;
