<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Folders\Folder;
use VineShelf\Layers\Layer;
use VineShelf\Organizers\Organizers;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Tags\Tag;

/**
 * What pictures are to show, as far as somebody has said so: of layers, tags, folders of tags and objects. A project has some, and so
 * does every view that keeps output. Values are those of {@see Output}, by number.
 */
final readonly class OutputSettings
{
    private const BEFORE = 'was ';

    /**
     * @param array<int, int> $layers
     * @param array<int, int> $tags
     * @param array<int, int> $folders
     * @param array<int, Bits> $objects object numbers by value; no object is in two sets
     * @param array<int, int>  $layersAlone  rungs that a view holds what is filed right under a layer at, as {@see Settings} has them
     * @param array<int, Bits> $objectsAlone object numbers that a view holds without what they hold, by rung; no object is in two sets
     */
    public function __construct(
        public array $layers = [],
        public array $tags = [],
        public array $folders = [],
        public array $objects = [],
        public array $layersAlone = [],
        public array $objectsAlone = [],
    ) {}

    /** Those of a project, as its organizers and its objects have them. */
    public static function of(Organizers $organizers, Scene $scene): self
    {
        $layers = [];
        foreach ($organizers->layers->walk() as [$layer]) {
            $layers[$layer->number] = $layer;
        }
        $objects = [];
        foreach ($organizers->own->values(OwnValue::OUTPUT) as $value) {
            $output = self::read($value->value);
            $numbers = $scene->numberBits($scene->valued($value->number));
            if (! $numbers->isEmpty()) {
                $objects[$output->value] = isset($objects[$output->value]) ? $objects[$output->value]->with($numbers) : $numbers;
            }
        }

        return new self(
            self::ofRows($layers),
            self::ofRows($organizers->tags->tree->members),
            self::ofRows($organizers->tags->tree->folders),
            $objects,
        );
    }

    /**
     * @param array<int, Layer|Tag|Folder> $rows by number
     *
     * @return array<int, int>
     */
    private static function ofRows(array $rows): array
    {
        $values = [];
        foreach ($rows as $number => $row) {
            if ($row->output !== null) {
                $values[$number] = $row->output->value;
            }
        }

        return $values;
    }

    /** The setting in a value of the property {@see OwnValue::OUTPUT}, which a note may follow. */
    public static function read(string $value): Output
    {
        return Output::named(explode(' ', $value, 2)[0]) ?? Output::Full;
    }

    /** The note of a row that is hidden in pictures: what it had set before; empty for nothing. */
    public static function remembering(?Output $before): string
    {
        return $before === null ? '' : self::BEFORE.$before->word();
    }

    /** What a row had set before it was hidden in pictures, as its note says; null for nothing. */
    public static function before(string $note): ?Output
    {
        return str_starts_with($note, self::BEFORE) ? Output::named(substr($note, strlen(self::BEFORE))) : null;
    }

    /** The note in a value of the property {@see OwnValue::OUTPUT}. */
    public static function note(string $value): string
    {
        return trim(substr($value, strcspn($value, ' ')));
    }

    /** What is set; null where nothing is. @param string $what "layer", "tag", "folder" or "object" */
    public function value(string $what, int $number): ?Output
    {
        if ($what === 'object') {
            $set = self::in($this->objects, $number);
            $alone = self::in($this->objectsAlone, $number);

            return $set === null || ($alone !== null && $alone->value < $set->value) ? $alone : $set;
        }
        $values = match ($what) {
            'layer' => $this->layers,
            'tag' => $this->tags,
            default => $this->folders,
        };

        return isset($values[$number]) ? Output::from($values[$number]) : null;
    }

    /** @param array<int, Bits> $objects */
    private static function in(array $objects, int $number): ?Output
    {
        foreach ($objects as $value => $numbers) {
            if ($number <= $numbers->length && $numbers->has($number)) {
                return Output::from($value);
            }
        }

        return null;
    }

    /**
     * The settings with others for some rows; what was held alone of those no longer is.
     *
     * @param list<int>   $layers
     * @param list<int>   $tags
     * @param list<int>   $folders
     * @param Bits        $numbers object numbers
     * @param Output|null $output  null to set nothing
     */
    public function with(array $layers, array $tags, array $folders, Bits $numbers, ?Output $output): self
    {
        return new self(
            self::put($this->layers, $layers, $output),
            self::put($this->tags, $tags, $output),
            self::put($this->folders, $folders, $output),
            self::set($this->objects, $numbers, $output?->value),
            array_diff_key($this->layersAlone, array_fill_keys($layers, true)),
            self::set($this->objectsAlone, $numbers, null),
        );
    }

    /**
     * The settings with which a picture has other own rungs.
     *
     * @param Settings $has   what it has by these settings, as {@see over()} gives it
     * @param Settings $wants what it is to have
     */
    public function giving(Settings $has, Settings $wants): self
    {
        return GivenOutput::by($this, $has, $wants);
    }

    /**
     * Sets of objects with some at another value.
     *
     * @param array<int, Bits> $objects object numbers by value; no object is in two sets
     * @param int|null         $value   null to set nothing
     *
     * @return array<int, Bits>
     */
    public static function set(array $objects, Bits $numbers, ?int $value): array
    {
        if ($numbers->isEmpty()) {
            return $objects;
        }
        $objects = array_filter(
            array_map(static fn (Bits $held): Bits => $held->less($numbers), $objects),
            static fn (Bits $held): bool => ! $held->isEmpty(),
        );
        if ($value !== null) {
            $objects[$value] = isset($objects[$value]) ? $objects[$value]->with($numbers) : $numbers;
        }

        return $objects;
    }

    /**
     * @param array<int, int> $values
     * @param list<int>       $those
     *
     * @return array<int, int>
     */
    private static function put(array $values, array $those, ?Output $output): array
    {
        foreach ($those as $number) {
            if ($output === null) {
                unset($values[$number]);
            } else {
                $values[$number] = $output->value;
            }
        }

        return $values;
    }

    public function isEmpty(): bool
    {
        return $this->layers === [] && $this->tags === [] && $this->folders === [] && $this->objects === [] &&
            $this->layersAlone === [] && $this->objectsAlone === [];
    }

    /** Whether anything follows the desk of whoever makes the picture. */
    public function followsDesk(): bool
    {
        $desk = Output::AsOnDesk->value;

        return isset($this->objects[$desk]) ||
            in_array($desk, $this->layers, true) ||
            in_array($desk, $this->tags, true) ||
            in_array($desk, $this->folders, true);
    }

    /**
     * What follows the desk of whoever makes a picture of a view.
     *
     * @param self|null $own those of the view
     *
     * @return array{array<int, int>, array<int, int>, array<int, int>} layers, tags and folders, by number
     */
    public function following(?self $own): array
    {
        $isFollowing = static fn (int $value): bool => $value === Output::AsOnDesk->value;

        return [
            array_filter(OutputOver::said($this->layers, $own->layers ?? []), $isFollowing),
            array_filter(OutputOver::said($this->tags, $own->tags ?? []), $isFollowing),
            array_filter(OutputOver::said($this->folders, $own->folders ?? []), $isFollowing),
        ];
    }

    /** Those of them that say what is never in pictures. */
    public function never(): self
    {
        $isNever = static fn (int $value): bool => $value === Output::Never->value;

        return new self(
            array_filter($this->layers, $isNever),
            array_filter($this->tags, $isNever),
            array_filter($this->folders, $isNever),
            array_filter($this->objects, $isNever, ARRAY_FILTER_USE_KEY),
        );
    }

    /**
     * The own rungs of a picture: these settings over those that the view keeps, and over these the view's own output settings; what is
     * never in pictures stays out of them whatever the view says.
     *
     * @param Settings $view what the view keeps; nothing where there is no view, or one without rungs
     * @param Settings $desk of whoever makes the picture, for what follows the desk
     */
    public function over(Settings $view, Settings $desk, ?self $own = null): Settings
    {
        return OutputOver::of($this, $view, $desk, $own ?? new self);
    }

    /** @return string as {@see PackedOutput} writes it */
    public function pack(): string
    {
        return PackedOutput::of($this);
    }

    public static function unpack(string $packed): self
    {
        return PackedOutput::read($packed);
    }
}
