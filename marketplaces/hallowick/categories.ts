import { taxonomy } from '../kit/taxonomy';
import { attribute, tree } from '../kit/tree';

const mounts = ['Brask K', 'Orvane M', 'Tessaly L', 'Screw 42', 'Fixed', 'Other'];
const formats = ['35 mm', '120', '110', 'Sheet 4×5', 'Instant', 'Other'];
const colours = ['Black', 'Silver', 'Brown', 'White', 'Green', 'Blue', 'Red', 'Multicoloured'];
const cameraAttributes = [
  attribute('Film format', formats, true),
  attribute('Lens mount', mounts),
  attribute('Model', null, true, 65),
  attribute('Colour', colours),
  attribute('Year made', null, false, 10),
];
const lensAttributes = [
  attribute('Lens mount', mounts, true),
  attribute('Focal length', null, true, 30),
  attribute('Largest aperture', null, false, 20),
  attribute('Filter thread', null, false, 20),
  attribute('Colour', colours),
];
const bookAttributes = [
  attribute('Author', null, false, 65),
  attribute('Language', ['English', 'German', 'French', 'Other'], true),
  attribute('Format', ['Paperback', 'Hardback', 'Leaflet'], false),
];

const photography = tree('H', [
  {
    name: 'Cameras',
    leaves: {
      'Film SLR cameras': cameraAttributes,
      'Rangefinder cameras': cameraAttributes,
      'Compact film cameras': cameraAttributes,
      'Medium format cameras': cameraAttributes,
      'Folding cameras': cameraAttributes,
      'Instant cameras': cameraAttributes,
    },
  },
  {
    name: 'Lenses',
    leaves: {
      'SLR lenses': lensAttributes,
      'Rangefinder lenses': lensAttributes,
      'Enlarger lenses': lensAttributes,
      'Lens hoods and caps': [attribute('Filter thread'), attribute('Material')],
    },
  },
  {
    name: 'Film',
    leaves: {
      'Colour film': [
        attribute('Film format', formats, true),
        attribute('Film speed', null, true, 20),
        attribute('Exposures'),
      ],
      'Black and white film': [
        attribute('Film format', formats, true),
        attribute('Film speed', null, true, 20),
        attribute('Exposures'),
      ],
    },
  },
  {
    name: 'Darkroom',
    leaves: {
      'Developing tanks': [attribute('Film format', formats), attribute('Material')],
      Enlargers: [attribute('Film format', formats, true), attribute('Model')],
      'Trays and tools': [attribute('Material'), attribute('Colour', colours)],
      'Darkroom outfits': [attribute('Contents', null, false, 200)],
    },
  },
  {
    name: 'Accessories',
    leaves: {
      'Camera straps': [
        attribute('Material', ['Leather', 'Cotton', 'Nylon', 'Hemp'], true),
        attribute('Colour', colours, true),
        attribute('Length'),
      ],
      'Camera bags and cases': [attribute('Material'), attribute('Colour', colours)],
      'Light meters': [attribute('Model', null, true)],
      Flashes: [attribute('Model')],
      Tripods: [attribute('Material')],
      Filters: [attribute('Filter thread', null, true)],
    },
  },
  { name: 'Books', leaves: { 'Photography manuals': bookAttributes, 'Photography books': bookAttributes } },
  {
    name: 'Art',
    leaves: {
      'Framed prints': [attribute('Width'), attribute('Height'), attribute('Material')],
      'Unframed prints': [attribute('Width'), attribute('Height')],
    },
  },
]);

/** What is not photography comes from the common kinds of goods, under numbers of its own. */
const further = taxonomy({
  prefix: 'HX',
  names: 0,
  traitNames: 0,
  most: 6,
  required: (good) => good.traits.filter((key) => key === 'colour' || key === 'size' || key === 'language').slice(0, 2),
}).filter((category) => ['Clothing', 'Home', 'Collectables'].includes(category.path[0] ?? ''));

export const categories = [...photography, ...further];
