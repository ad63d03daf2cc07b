<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Models\Lightening;
use App\Models\View;
use VineShelf\Rungs\Rows;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Views\Meant;

/**
 * What is lowered in the rungs that a view keeps, or is to keep, and whether its pictures take that over: what was hidden or ghosted is
 * meant unless somebody says otherwise, what was thinned to work is not.
 */
final readonly class Lowered
{
    /** Kinds of lowering and whether they are meant while nobody has chosen. */
    private const MEANT = ['0' => true, '1' => false, '2' => true, '3' => false, '4' => false, 'lighten' => false];

    /** @param list<LoweredRows> $lines the lowest rung first */
    private function __construct(private Settings $kept, public array $lines) {}

    /** Of what the desk has now; as the person has chosen for each kind last. */
    public static function onDesk(Bench $bench): self
    {
        $chosen = $bench->desk->keeping['meant'] ?? [];
        $lightened = self::lightened($bench);
        $isMeant = static fn (string $kind): bool => (bool) ($chosen[$kind] ?? self::MEANT[$kind]);

        return self::of($bench, $bench->kept(), $lightened, static fn (LoweredRows $line): bool => $isMeant($line->kind));
    }

    /** Of what a view keeps; as it has it. */
    public static function inView(Bench $bench, View $view): self
    {
        [$kept, $meant] = [$view->settings(), $view->meant()];
        $forWork = [];
        foreach ($kept->objects as $rung => $numbers) {
            $forWork[$rung] = $numbers->less($meant->objects[$rung] ?? Bits::none(0));
        }
        foreach ($kept->objectsAlone as $rung => $numbers) {
            $forWork[$rung] = ($forWork[$rung] ?? Bits::none(0))->with($numbers->less($meant->objectsAlone[$rung] ?? Bits::none(0)));
        }

        return self::of(
            $bench,
            $kept,
            new Settings([], $forWork),
            static fn (LoweredRows $line): bool => match ($line->id[0]) {
                'L' => $meant->layer((int) substr($line->id, 1)) === $kept->layer((int) substr($line->id, 1)) &&
                    $meant->layerAlone((int) substr($line->id, 1)) === $kept->layerAlone((int) substr($line->id, 1)),
                'T' => $meant->tag((int) substr($line->id, 1)) !== null,
                'F' => $meant->folder((int) substr($line->id, 1)) !== null,
                default => $line->id[0] === 'O',
            },
        );
    }

    /**
     * What is meant for pictures.
     *
     * @param array<string, bool> $choices by id of a line; the others are as they say
     *
     * @return Settings|null null where all of it is
     */
    public function meant(array $choices = []): ?Settings
    {
        $meant = $this->kept;
        foreach ($this->lines as $line) {
            if (! ($choices[$line->id] ?? $line->isMeant)) {
                $meant = Meant::without($meant, $line->rows);
            }
        }

        return $meant->pack() === $this->kept->pack() ? null : $meant;
    }

    /**
     * What was chosen for each kind of lowering; nothing where lines of a kind differ.
     *
     * @param array<string, bool> $choices
     *
     * @return array<string, bool>
     */
    public function chosen(array $choices): array
    {
        $kinds = [];
        foreach ($this->lines as $line) {
            if (isset($choices[$line->id])) {
                $kinds[$line->kind][(int) $choices[$line->id]] = true;
            }
        }

        return array_map(
            static fn (array $values): bool => (bool) array_key_first($values),
            array_filter($kinds, static fn (array $values): bool => count($values) === 1),
        );
    }

    /** @param Settings $thinned what was set by Lighten, or is only to work so far @param \Closure(LoweredRows): bool $isMeant */
    private static function of(Bench $bench, Settings $kept, Settings $thinned, \Closure $isMeant): self
    {
        $lines = [];
        $add = static function (string $id, string $name, Rung $rung, Rows $rows, string $kind) use (&$lines, $isMeant): void {
            if ($rung !== Rung::Full) {
                $line = new LoweredRows($id, $name, $rung, $rows, $kind, false);
                $lines[] = new LoweredRows($id, $name, $rung, $rows, $kind, $isMeant($line));
            }
        };
        $none = Bits::none(0);
        $organizers = $bench->organizers();
        foreach ($organizers->layers->walk() as [$layer]) {
            $number = $layer->number;
            $set = array_filter([$kept->layer($number), $kept->layerAlone($number)]);
            if ($set !== []) {
                $rung = Rung::from(min(array_map(static fn (Rung $rung): int => $rung->value, $set)));
                $kind = ($thinned->layers[$number] ?? null) === $rung->value ? 'lighten' : (string) $rung->value;
                $add("L$number", $layer->name, $rung, new Rows([$number], [], [], $none), $kind);
            }
        }
        foreach (array_intersect_key($organizers->tags->tree->members, $kept->tags) as $number => $tag) {
            $rung = $kept->tags[$number];
            $add("T$number", $tag->name, Rung::from($rung), new Rows([], [$number], [], $none), (string) $rung);
        }
        foreach (array_intersect_key($organizers->tags->tree->folders, $kept->folders) as $number => $folder) {
            $rung = $kept->folders[$number];
            $add("F$number", $folder->name, Rung::from($rung), new Rows([], [], [$number], $none), (string) $rung);
        }
        foreach (Rung::cases() as $rung) {
            $numbers = ($kept->objects[$rung->value] ?? $none)->with($kept->objectsAlone[$rung->value] ?? $none);
            $work = $thinned->objects[$rung->value] ?? $none;
            $byWork = $numbers->shared($work);
            $rest = $numbers->less($work);
            if (! $rest->isEmpty()) {
                $add("O$rung->value", '', $rung, new Rows([], [], [], $rest), (string) $rung->value);
            }
            if (! $byWork->isEmpty()) {
                $add("W$rung->value", '', $rung, new Rows([], [], [], $byWork), 'lighten');
            }
        }
        usort($lines, static fn (LoweredRows $a, LoweredRows $b): int => $a->rung->value <=> $b->rung->value);

        return new self($kept, $lines);
    }

    /** Rungs that Lighten has set on the person's desk, was not asked to give back, and that still stand. */
    private static function lightened(Bench $bench): Settings
    {
        $found = new Settings;
        $applied = Lightening::query()
            ->where('project_id', $bench->project->id)
            ->where('user_id', $bench->person->id)
            ->whereNotNull('applied_at')
            ->whereNull('given_back_at')
            ->orderBy('applied_at');
        foreach ($applied->get() as $lightening) {
            $found = ($lightening->wanted['side'] ?? '') === 'output' ? $found : Settings::unpack($lightening->done())->over($found);
        }

        return $found;
    }
}
