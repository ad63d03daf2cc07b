<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** How somebody who worked on the hall for a day has sorted it: what the demo's second project is made to look like, as plain data. */
final class Sorted
{
    /** layer => what comes to lie in it, as the file calls them */
    public const NESTED = [
        '10 Structure' => ['11 Slabs', '12 Steel'],
        '20 Roof' => ['21 Roof skin'],
        '30 Glazing' => ['31 Frames', '32 Doors'],
        '40 Basins' => ['41 Lane ropes', '42 Coping', '43 Pool equipment', '44 Water'],
        '50 Stands' => ['51 Seats', '52 Steps and rails'],
        '60 Changing' => ['61 Lockers', '62 Cabins', '63 Showers'],
        '70 Plant' => ['71 Pumps', '72 Filters', '73 Pipes', '74 Electrical', '75 Valves'],
        '80 Gallery' => ['81 Cafe', '82 Railings', '83 Furniture'],
        '90 Site' => ['91 Planting', '92 Paving', '93 Site furniture'],
        'Finishes' => ['96 Finishes A', '96 Finishes B'],
    ];

    /** path of a tag => rule for the objects that have it, with what they hold */
    public const TAGS = [
        'Finishes / Oak and stone' => 'name="Finishes scheme A"',
        'Finishes / Slate and steel' => 'name="Finishes scheme B"',
        'Phases / First: shell and pools' => 'layer:Structure or layer:Roof or layer:Glazing or layer:Basins',
        'Phases / Second: stands and changing' => 'layer:Stands or layer:Changing or layer:Gallery',
        'Phases / Third: outside' => 'layer:Site',
        'Trades / Concrete' => 'kind:part material:concrete',
        'Trades / Carpenter' => 'kind:part (material:glulam or material:oak)',
        'Trades / Glazier' => 'kind:part (material:"clear glass" or material:"alu frame")',
        'Trades / Tiler' => 'kind:part (material:tile or material:"coping stone")',
        'Trades / Pipe fitter' => 'kind:part (material:pipe or material:vessel or layer:Valves)',
        'Trades / Roofer' => 'kind:part material:roof',
        'Client may change' => 'layer:Seats or layer:Cafe or layer:Lockers',
        'To be checked' => 'kind:marker or (kind:part size<3cm)',
    ];

    /** Folders of tags whose members show one at a time. */
    public const ONE_AT_A_TIME = ['Finishes'];

    /** path of a set => [rule, whether it is fixed] */
    public const SETS = [
        'Wet / Everything wet' => ['layer:Water or layer:Showers or layer:Pipes or layer:Pumps', false],
        'Wet / Wet and in the first phase' => ['set:"Everything wet" tag:"First: shell and pools"', false],
        'Checks / In no trade' => ['kind:part not tag:Trades', false],
        'Checks / Small and heavy' => ['kind:part size<1m triangles>=300', false],
        'Checks / Nothing inside' => ['kind:marker', false],
        'Seats on the aisles' => ['has aisle', true],
        'Lamps of the hall' => ['kind:light', true],
    ];

    /** What is guarded or locked: 1 guarded, 2 locked. */
    public const LOCKS = ['layer:Structure' => 1, 'layer:Site' => 1, 'layer:Basins' => 2];

    /**
     * Views by name, in folders: where they are seen from (metres, z up; degrees) and the rungs that they keep besides Full.
     *
     * @var array<string, array{folder: string, picture: string, camera: array{eye: list<float>, target: list<float>, fov: float}|null,
     *     rungs: array<string, int>}>
     */
    public const VIEWS = [
        'Arrival' => [
            'folder' => 'Client',
            'picture' => 'arrival',
            'camera' => ['eye' => [58.0, -52.0, 30.0], 'target' => [0.0, -2.0, 0.0], 'fov' => 38.0],
            'rungs' => ['tag:Finishes / Slate and steel' => 0],
        ],
        'Hall, roof ghosted' => [
            'folder' => 'Client',
            'picture' => 'hall',
            'camera' => ['eye' => [37.0, -37.0, 23.0], 'target' => [-1.0, -1.5, 1.0], 'fov' => 40.0],
            'rungs' => ['layer:Roof' => 2, 'layer:Site / Planting' => 1, 'tag:Finishes / Slate and steel' => 0],
        ],
        'Pool in slate and steel' => [
            'folder' => 'Client',
            'picture' => 'slate',
            'camera' => ['eye' => [8.0, 3.0, 5.4], 'target' => [-6.0, -11.0, 0.6], 'fov' => 52.0],
            'rungs' => ['tag:Finishes / Oak and stone' => 0],
        ],
        'Plant under the deck' => [
            'folder' => '',
            'picture' => 'plant',
            'camera' => ['eye' => [30.0, -30.0, 18.0], 'target' => [0.0, 0.0, -3.0], 'fov' => 40.0],
            'rungs' => [
                'layer:Structure' => 2,
                'layer:Roof' => 0,
                'layer:Glazing' => 0,
                'layer:Basins' => 2,
                'layer:Stands' => 0,
                'layer:Changing' => 0,
                'layer:Gallery' => 0,
                'layer:Site' => 0,
                'folder:Finishes' => 0,
            ],
        ],
    ];

    /** The picture of a view: JPEG. */
    public static function picture(string $name): string
    {
        return (string) file_get_contents(__DIR__."/pictures/$name.jpg");
    }
}
