<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Group;
use VineShelf\Locks\Lock;
use VineShelf\Rules\Printer;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;

/** One line of the ledger. */
final readonly class Row
{
    public function __construct(
        /** "L5" for a layer, "O123" for an object, "T3", "F2", "E4", "K1", "K1.3", "M4", "S2" for a {@see Group}. */
        public string $key,
        /** Depth, from 1. */
        public int $level,
        public string $name,
        public string $colour,
        /** Objects inside; null for an object that holds nothing. */
        public ?int $count,
        public int $triangles,
        public Rung $own,
        public Rung $inEffect,
        /** Whether the members differ from each other. */
        public bool $mixed,
        public Lock $ownLock,
        public Lock $lock,
        /** Picked objects in it, and whether the row itself counts as picked. */
        public int $picked,
        public bool $isPicked,
        public bool $foldable,
        public bool $unfolded,
        /** "layer", what a group is, or an object's kind. */
        public string $kind,
        public bool $landing = false,
        /** @var array<string, string> text by id of the columns that the row does not draw itself */
        public array $cells = [],
        public ?About $about = null,
        /** Null where the column is not there. */
        public ?InPictures $pictures = null,
    ) {}

    public function isLayer(): bool
    {
        return $this->key[0] === 'L';
    }

    /** Whether it is a row that people made: a layer, a tag, a folder or a set. */
    public function isOrganizer(): bool
    {
        return str_contains('LTFE', $this->key[0]);
    }

    /** Whether it has a rung and a lock of its own. */
    public function isSetItself(): bool
    {
        return $this->isObject() || in_array($this->kind, ['layer', 'tag'], true) || $this->about?->holds === 'tags';
    }

    /** The icon of a folder or a set. */
    public function icon(): string
    {
        return $this->kind === 'folder' ? 'folder' : ($this->about?->rule === null ? 'list-checks' : 'zap');
    }

    /** The kind of the object, or of those that it stands for; "" for rows of another sort. */
    public function objectKind(): string
    {
        return match (true) {
            $this->isObject() => $this->kind,
            $this->kind === 'kind' => Kind::from($this->number())->label(),
            default => '',
        };
    }

    public function isObject(): bool
    {
        return $this->key[0] === 'O';
    }

    public function number(): int
    {
        return (int) substr($this->key, 1);
    }

    /** Whether something other than the row's own setting holds it down. */
    public function isHeld(): bool
    {
        return $this->inEffect->value < $this->own->value;
    }

    /** The rule that finds what the row stands for; "" where none says it. */
    public function condition(): string
    {
        $quoted = Printer::quoted($this->name);

        return match (true) {
            $this->isObject(), $this->name === '' => '',
            $this->key === 'M0' => 'not has material',
            $this->kind === 'kind' => 'kind:'.Kind::from($this->number())->label(),
            in_array($this->kind, ['layer', 'class', 'material', 'source', 'tag', 'set'], true) => "$this->kind=$quoted",
            $this->kind === 'folder' && $this->about?->holds === 'tags' => "tag=$quoted",
            $this->kind === 'folder' && $this->about?->holds === 'sets' => "set=$quoted",
            default => '',
        };
    }

    /** Classes of its line on the page. */
    public function classes(): string
    {
        $kind = $this->isLayer() ? ' is-layer' : ($this->isObject() ? '' : ' is-group is-'.$this->kind);

        return 'row'.$kind.($this->isHeld() ? ' held' : '').($this->isPicked ? ' picked' : '');
    }

    /** How long its bar of weight is: percent of the heaviest row's, but never too short to be seen. */
    public function share(int $heaviest): float
    {
        return $this->triangles === 0 ? 0.0 : max(1.5, round(100 * min(1, $this->triangles / max(1, $heaviest)), 1));
    }

    public function rungLabel(): string
    {
        return ($this->mixed ? 'Mixed' : $this->inEffect->label()).($this->isHeld() ? ', own setting '.$this->own->label() : '');
    }

    /** @param bool $mayChange whether a click changes it */
    public function lockTitle(bool $mayChange): string
    {
        $above = $this->lock !== $this->ownLock ? ' by something above it' : '';

        return $this->lock->label().$above.($mayChange ? '. Click: '.$this->ownLock->next()->label() : '');
    }
}
