<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Folders\Folder;
use VineShelf\Layers\Layer;
use VineShelf\Organizers\Organizers;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;
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
     */
    public function __construct(
        public array $layers = [],
        public array $tags = [],
        public array $folders = [],
        public array $objects = [],
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
            self::set($layers),
            self::set($organizers->tags->tree->members),
            self::set($organizers->tags->tree->folders),
            $objects,
        );
    }

    /**
     * @param array<int, Layer|Tag|Folder> $rows by number
     *
     * @return array<int, int>
     */
    private static function set(array $rows): array
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
            foreach ($this->objects as $value => $numbers) {
                if ($number <= $numbers->length && $numbers->has($number)) {
                    return Output::from($value);
                }
            }

            return null;
        }
        $values = match ($what) {
            'layer' => $this->layers,
            'tag' => $this->tags,
            default => $this->folders,
        };

        return isset($values[$number]) ? Output::from($values[$number]) : null;
    }

    /**
     * The settings with others for some rows.
     *
     * @param list<int>   $layers
     * @param list<int>   $tags
     * @param list<int>   $folders
     * @param Bits        $numbers object numbers
     * @param Output|null $output  null to set nothing
     */
    public function with(array $layers, array $tags, array $folders, Bits $numbers, ?Output $output): self
    {
        $objects = array_filter(
            array_map(static fn (Bits $held): Bits => $held->less($numbers), $this->objects),
            static fn (Bits $held): bool => ! $held->isEmpty(),
        );
        if ($output !== null && ! $numbers->isEmpty()) {
            $objects[$output->value] = isset($objects[$output->value]) ? $objects[$output->value]->with($numbers) : $numbers;
        }

        return new self(
            self::put($this->layers, $layers, $output),
            self::put($this->tags, $tags, $output),
            self::put($this->folders, $folders, $output),
            $objects,
        );
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
        return $this->layers === [] && $this->tags === [] && $this->folders === [] && $this->objects === [];
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
     * The own rungs of a picture: these settings over those that the view keeps, and over these the view's own output settings; what is
     * never in pictures stays out of them whatever the view says.
     *
     * @param Settings $view what the view keeps; nothing where there is no view, or one without rungs
     * @param Settings $desk of whoever makes the picture, for what follows the desk
     */
    public function over(Settings $view, Settings $desk, ?self $own = null): Settings
    {
        $own ??= new self;
        $never = array_filter($this->objects, static fn (int $value): bool => $value === Output::Never->value, ARRAY_FILTER_USE_KEY);
        $layers = self::said($this->layers, $own->layers);
        $following = array_filter($layers, static fn (int $value): bool => $value === Output::AsOnDesk->value);
        $settings = new Settings(
            self::rungs($layers, $desk->layers) + $view->layers,
            $view->objects,
            self::rungs(self::said($this->tags, $own->tags), $desk->tags) + $view->tags,
            self::rungs(self::said($this->folders, $own->folders), $desk->folders) + $view->folders,
            layersAlone: array_diff_key($view->layersAlone, $layers) + array_intersect_key($desk->layersAlone, $following),
            objectsAlone: $view->objectsAlone,
        );
        foreach ([$this->objects, $own->objects, $never] as $objects) {
            foreach ($objects as $value => $numbers) {
                $settings = self::withObjects($settings, Output::from($value), $numbers, $desk);
            }
        }

        return $settings;
    }

    /**
     * What counts by number: what the view says before what the project does, and before both what is never in pictures.
     *
     * @param array<int, int> $project
     * @param array<int, int> $own those of the view
     *
     * @return array<int, int>
     */
    private static function said(array $project, array $own): array
    {
        return array_filter($project, static fn (int $value): bool => $value === Output::Never->value) + $own + $project;
    }

    /**
     * @param array<int, int> $said values of {@see Output}
     * @param array<int, int> $desk
     *
     * @return array<int, int> rungs
     */
    private static function rungs(array $said, array $desk): array
    {
        $rungs = [];
        foreach ($said as $number => $value) {
            $rungs[$number] = Output::from($value)->rung() ?? ($desk[$number] ?? Rung::Full->value);
        }

        return $rungs;
    }

    private static function withObjects(Settings $settings, Output $output, Bits $numbers, Settings $desk): Settings
    {
        $rung = $output->rung();
        if ($rung !== null) {
            return $settings->withObjects($numbers, Rung::from($rung));
        }
        $settings = $settings->withObjects($numbers, Rung::Full);
        foreach ($desk->objects as $there => $those) {
            $settings = $settings->withObjects($those->shared($numbers), Rung::from($there));
        }
        foreach ($desk->objectsAlone as $there => $those) {
            $settings = $settings->withObjectsAlone($those->shared($numbers), Rung::from($there));
        }

        return $settings;
    }

    /** @return string for layers, tags and folders each how many, numbers and values; then for each value of objects: value, bytes, bits */
    public function pack(): string
    {
        $raw = '';
        foreach ([$this->layers, $this->tags, $this->folders] as $values) {
            $raw .= pack('V', count($values));
            $raw .= $values === [] ? '' : pack('V*', ...array_keys($values)).pack('C*', ...array_values($values));
        }
        foreach ($this->objects as $value => $numbers) {
            $bytes = rtrim($numbers->bytes, "\0");
            $raw .= pack('CV', $value, strlen($bytes)).$bytes;
        }

        return (string) gzdeflate($raw, 1);
    }

    public static function unpack(string $packed): self
    {
        $raw = $packed === '' ? '' : (string) gzinflate($packed);
        $values = [[], [], []];
        $objects = [];
        $at = 0;
        for ($what = 0; $what < 3 && $at + 4 <= strlen($raw); $what++, $at += 4 + 5 * $count) {
            [$count] = Packed::uint32($raw, $at, 1);
            /** @var array<int, int> $read */
            $read = $count === 0 ? [] : unpack('C'.$count, $raw, $at + 4 + 4 * $count);
            $values[$what] = $count === 0 ? [] : array_combine(Packed::uint32($raw, $at + 4, $count), $read);
        }
        for (; $at + 5 <= strlen($raw); $at += 5 + $size) {
            [$size] = Packed::uint32($raw, $at + 1, 1);
            $objects[ord($raw[$at])] = Bits::ofBytes(($size << 3) - 1, substr($raw, $at + 5, $size));
        }

        return new self($values[0], $values[1], $values[2], $objects);
    }
}
