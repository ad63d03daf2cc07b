<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\View;
use VineShelf\Folders\Folder;
use VineShelf\Folders\FolderTree;
use VineShelf\Folders\Holds;
use VineShelf\Folders\Shelved;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tags\Tag;

/** A layer, tag, folder, set or view, for what is done to all of them in the same way: naming, moving, deleting. */
final readonly class Organizer
{
    private function __construct(
        public OrganizerKind $kind,
        public int $number,
        /** Number of the layer or folder that it lies in, 0 at the top. */
        public int $parent,
        public int $position,
        public string $name,
        /** "layers", "tags", "sets" or "views": what may lie beside it. */
        public string $family,
        public Lock $ownLock = Lock::Open,
        public Lock $lock = Lock::Open,
    ) {}

    /** @throws Refused when there is no such row any more */
    public static function named(Bench $bench, string $key): self
    {
        return self::find($bench, $key) ?? throw new Refused('That row is no longer there.', 'keys');
    }

    /** @param string $key for example "L5", "T3", "F2", "E4" or "V1" */
    public static function find(Bench $bench, string $key): ?self
    {
        if (preg_match('~^([LTFEV])(\d{1,9})$~D', $key, $found) !== 1) {
            return null;
        }
        $number = (int) $found[2];

        return match (OrganizerKind::from($found[1])) {
            OrganizerKind::Layer => $bench->layers()->has($number) ? self::layer($bench, $bench->layers()->get($number)) : null,
            OrganizerKind::Tag => $bench->tags()->has($number) ? self::tag($bench, $bench->tags()->get($number)) : null,
            OrganizerKind::Set => $bench->sets()->has($number) ? self::set($bench->sets()->get($number)) : null,
            OrganizerKind::Folder => self::folderNumbered($bench, $number),
            OrganizerKind::View => self::view($bench->shelf()->members[$number] ?? null),
        };
    }

    public function key(): string
    {
        return $this->kind->value.$this->number;
    }

    public function isUnsorted(): bool
    {
        return $this->kind === OrganizerKind::Layer && $this->number === Layer::UNSORTED;
    }

    /** For example "layer Glazing". */
    public function inWords(): string
    {
        return "{$this->kind->word()} $this->name";
    }

    /**
     * What lies in a layer or a folder, or at the top, in the order on screen.
     *
     * @param int $in number, 0 for the top
     *
     * @return list<self>
     */
    public static function inside(Bench $bench, string $family, int $in): array
    {
        if ($family === 'layers') {
            return array_map(
                static fn (int $number): self => self::layer($bench, $bench->layers()->get($number)),
                $bench->layers()->inside($in),
            );
        }
        $tree = self::tree($bench, $family);
        $found = [];
        foreach ($tree->inside($in) as $key) {
            $number = (int) substr($key, 1);
            $found[] = $key[0] === 'F' ? self::folder($bench, $tree->folders[$number]) : self::shelved($bench, $tree->members[$number]);
        }

        return $found;
    }

    /**
     * The number of the row of a name that lies in another, whatever the case; null where there is none.
     *
     * @param string $family as {@see inside()} has it
     * @param string $what   "layer", "tag", "set", "view" or "folder"
     * @param int    $in     number of what it lies in, 0 for the top
     */
    public static function called(Bench $bench, string $family, string $what, int $in, string $name): ?int
    {
        foreach (self::inside($bench, $family, $in) as $row) {
            if ($row->kind->word() === $what && mb_strtolower($row->name) === mb_strtolower($name)) {
                return $row->number;
            }
        }

        return null;
    }

    /**
     * The row and all that lies in it, at any depth; what holds comes before what it holds.
     *
     * @return list<self>
     */
    public function withNested(Bench $bench): array
    {
        $all = [$this];
        for ($at = 0; $at < count($all); $at++) {
            if ($all[$at]->holdsOthers()) {
                array_push($all, ...self::inside($bench, $this->family, $all[$at]->number));
            }
        }

        return $all;
    }

    public function holdsOthers(): bool
    {
        return $this->kind === OrganizerKind::Layer || $this->kind === OrganizerKind::Folder;
    }

    /** @return FolderTree<Tag>|FolderTree<SelectionSet>|FolderTree<View> */
    public static function tree(Bench $bench, string $family): FolderTree
    {
        return match (Holds::tryFrom($family)) {
            Holds::Tags => $bench->tags()->tree,
            Holds::Sets => $bench->sets()->tree,
            Holds::Views => $bench->shelf(),
            null => throw new \LogicException("\"$family\" do not lie in folders."),
        };
    }

    private static function layer(Bench $bench, Layer $layer): self
    {
        return new self(
            OrganizerKind::Layer,
            $layer->number,
            $layer->parent,
            $layer->position,
            $layer->name,
            'layers',
            $layer->lock,
            Lock::from($bench->layers()->locks()[$layer->number]),
        );
    }

    private static function shelved(Bench $bench, Shelved $what): self
    {
        return match (true) {
            $what instanceof Tag => self::tag($bench, $what),
            $what instanceof SelectionSet => self::set($what),
            $what instanceof View => self::view($what) ?? throw new \LogicException,
            default => throw new \LogicException('This lies in no folder.'),
        };
    }

    private static function tag(Bench $bench, Tag $tag): self
    {
        $lock = Lock::from($bench->tags()->locks()["M$tag->number"]);

        return new self(OrganizerKind::Tag, $tag->number, $tag->folder, $tag->position, $tag->name, 'tags', $tag->lock, $lock);
    }

    private static function set(SelectionSet $set): self
    {
        return new self(OrganizerKind::Set, $set->number, $set->folder, $set->position, $set->name, 'sets');
    }

    private static function view(?View $view): ?self
    {
        return $view === null ? null : new self(OrganizerKind::View, $view->no, $view->folder_no, $view->position, $view->name, 'views');
    }

    private static function folderNumbered(Bench $bench, int $number): ?self
    {
        foreach (Holds::cases() as $holds) {
            $folder = self::tree($bench, $holds->value)->folders[$number] ?? null;
            if ($folder !== null) {
                return self::folder($bench, $folder);
            }
        }

        return null;
    }

    private static function folder(Bench $bench, Folder $folder): self
    {
        $lock = $folder->holds === Holds::Tags ? Lock::from($bench->tags()->locks()["F$folder->number"]) : Lock::Open;

        return new self(
            OrganizerKind::Folder,
            $folder->number,
            $folder->parent,
            $folder->position,
            $folder->name,
            $folder->holds->value,
            $folder->lock,
            $lock,
        );
    }
}
