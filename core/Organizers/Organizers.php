<?php

declare(strict_types=1);

namespace VineShelf\Organizers;

use VineShelf\Folders\Folder;
use VineShelf\Layers\LayerTree;
use VineShelf\Own\OwnProperties;
use VineShelf\Sets\SetTree;
use VineShelf\Tags\TagTree;

/** What a project is sorted by. */
final readonly class Organizers
{
    /** @param list<Folder> $viewFolders */
    public function __construct(
        public LayerTree $layers,
        public TagTree $tags = new TagTree,
        public SetTree $sets = new SetTree,
        public array $viewFolders = [],
        /** Properties that people gave objects. */
        public OwnProperties $own = new OwnProperties,
    ) {}
}
