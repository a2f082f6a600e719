// usage.ts — what the command line says of itself: all commands at a glance, and each with its options.

/** Help by command. */
export const HELP = {
  build: `outline-stack build INPUT… --out PATH [options]

Vector files or pictures → meshes.

  INPUT                 drawings (SVG, DXF), pictures (PNG, JPEG, WebP, TIFF, GIF, BMP), folders or globs; with several, PATH is a folder
  --out PATH            file or folder to write
  --format F            glb, obj or stl; svg or dxf for the outlines alone (otherwise from PATH's ending, else glb)
  --depth 4             total thickness, edges included
  --depth-by RULE       depth of each layer by a rule: order:1, containment:1, lightness:1..6, area:1..6, distance:1..6@0,20,
                        along:1..6@90 (degrees), spread:1..6@7 (draw), list:2,3,5
  --base-by RULE        how high each stands above the sheet, likewise
  --reach-by RULE       how far in its edge reaches, likewise
  --edge E              none, chamfer, round, cove, ogee, step or bead (default: round when --reach is given, else none)
  --reach 0.5           how far in the edge reaches
  --rise 0.5            how far down it comes (default: reach)
  --way in              in, or out as a flange
  --steps 3             strips across the edge
  --edge-on both        both, front or back
  --beyond ridge        where it reaches further than a stroke is wide: end in a ridge, or hold before that
  --corners mitred      corners that point inward: mitred or rounded
  --mitre-limit 5       mitred ones that run ahead by more reaches are cut square
  --faces fewest        fewest, even or grid
  --cell 1              target edge length of even faces, side of the squares of a grid
  --wall-rows 1         strips the wall is divided into
  --caps both           which of front and back are closed: both, front, back or none
  --crease 40           faces that meet at less than this are shaded as one surface, degrees
  --blend none          what an edge is smooth into: none, wall, front or both
  --uv none             UVs: none, units, fitted or packed
  --weld 0              tidied: points nearer than this become one
  --straight N          tidied: points this near to the line between their neighbours go
  --merge DEGREES       tidied: neighbours that meet at no more than this become one polygon
  --close               tidied: open rims get flat caps
  --curves splines      of a DXF: splines, arcs or lines (within the tolerance)
  --tolerance 0.01      largest distance between a curve and its chords
  --size N              fit the longest side to N
  --recipe FILE.json    the same settings from a file; options here win
  --material NAME|FILE.json
                        what all is made of: painted-wood, enamel, lacquer, matt, paper, rubber, felt, brass, gold, copper,
                        steel, glass, frosted, neon, or a material from a file; pictures that it or a recipe names lie
                        beside it
  --split               each outline a layer of its own, with a depth, base and reach of its own by rule
  --bake SIZE           colours and contact shade of everything in one picture of the GLB or OBJ: 512, 1024, 2048, 4096 or
                        8192 pixels a side
  --report FILE.json    write counts, checks and times
  --jobs N              files worked on at a time
`,
  trace: `outline-stack trace INPUT… --out PATH [options]

Pictures → SVG outlines.

  --mode M              ink, tones, colours or centreline (default: what suits the picture)
  --count N             tones or colours, 2 to 32 (default: as many as stand apart)
  --layering stacked    stacked or abutting
  --ink dark            what is ink: dark, light or opaque
  --level 0.5           grey at which ink ends, 0 to 1 (default: found in the picture)
  --detail 4            smallest piece and hole that is kept, square pixels
  --corner 25           turns sharper than this stay corners, degrees
  --smooth N            how far a curve may stray, pixels (default: what the picture's noise asks for)
  --as-it-came          nothing is done to the picture first (default: what it needs: uneven light divided out, specks
                        painted over, a large one made smaller), and the report says what
  --report, --jobs      as for build
`,
  letters: `outline-stack letters TEXT --font F --out PATH [options]

A text → outlines, every letter a shape, SVG or DXF.

  --font F              display-serif, grotesque, rounded, connected-script, or a font file (TTF, OTF, WOFF, WOFF2)
  --size 20             height of the em square
  --tracking 0          added between letters, thousandths of an em
  --line-spacing 1.25   from baseline to baseline, ems
  --align start         start, middle or end
  --no-kerning, --no-ligatures
  --report FILE.json    as for build; “\\n” in TEXT begins a new line
`,
  proof: `outline-stack proof MESH… [--json]

Checks on meshes (GLB, OBJ, STL), files, folders or globs; ends with 1 where one is not sound.
`,
  project: `outline-stack project FILE.outline --out PATH [options]

A saved project → any format, the very bytes that the page exports.

  --format F            as for build (otherwise from PATH's ending, else glb)
  --lengths metres      how a GLB states lengths: metres (it opens at its real size) or units
  --bake SIZE           as for build
  --report FILE.json    as for build
`,
} as const;

export type Verb = keyof typeof HELP;

const LENGTHS = `
Lengths are in the drawing's units: one user unit or one pixel is one unit unless --size, a physical unit or a scan's density
says otherwise.
`;

/** A line of each command. */
export const USAGE = `outline-stack COMMAND … [options]

  build INPUT… --out PATH [options]
      vector files or pictures → meshes
  trace INPUT… --out PATH [options]
      pictures → SVG outlines
  letters TEXT --font F --out PATH [options]
      a text → outlines, every letter a shape, SVG or DXF
  proof MESH… [--json]
      checks on meshes (GLB, OBJ, STL), files, folders or globs; ends with 1 where one is not sound
  project FILE.outline --out PATH [options]
      a saved project → any format, the very bytes that the page exports

  outline-stack COMMAND --help   its options
  outline-stack --version
`;

export const helpOf = (verb: Verb): string => HELP[verb] + (verb === 'proof' || verb === 'project' ? '' : LENGTHS);
