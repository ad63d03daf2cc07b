<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Named;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\ChangeOrganizer;
use App\Changes\Command;
use App\Changes\CreateFolder;
use App\Changes\CreateLayer;
use App\Changes\History;
use App\Changes\KeepSet;
use App\Changes\KeepView;
use App\Changes\MoveRows;
use App\Changes\RenameRows;
use App\Changes\SetLocks;
use App\Changes\TagAlong;
use App\Files\Kept;
use App\Models\Desk;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\User;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use MarlpitBaths\Sorted;
use VineShelf\Folders\Holds;
use VineShelf\Locks\Lock;
use VineShelf\Naming\Renaming;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Views\Facet;

/**
 * Sorts the demo as its user would, once its file is in: every step is a command of the product. Each step makes what is missing, so that
 * a worker that ended half way is followed by one that finishes.
 */
final class SortDemo implements ShouldQueue
{
    use Queueable;

    /** It is looked at again as often as it takes until the file is in; a fault is tried a few times. */
    public int $tries = 0;

    public int $maxExceptions = 3;

    /** Seconds until a file that is not in yet is looked at again. */
    private const LATER = 2;

    public function __construct(public readonly int $importId) {}

    public function handle(History $history): void
    {
        $import = Import::query()->find($this->importId);
        if ($import !== null && ! $import->isOver()) {
            $this->job === null ? self::dispatch($this->importId)->delay(self::LATER) : $this->release(self::LATER);

            return;
        }
        // What did not get in, or has been deleted since, is not sorted.
        if ($import?->state !== ImportState::Done || $import->project === null) {
            return;
        }
        $bench = Bench::of($import->project, User::query()->findOrFail($import->user_id));
        foreach ($this->steps($bench) as $make) {
            $history->carryOut($bench, $make);
            $bench->refresh();
        }
        $this->arrive($bench);
    }

    /** @return iterable<\Closure(Bench): Command> each is asked for once those before it are carried out */
    private function steps(Bench $bench): iterable
    {
        yield from $this->layers($bench);
        foreach (Sorted::TAGS as $path => $rule) {
            yield static fn (Bench $held): TagAlong => new TagAlong($held, $path, self::found($held, $rule), true, true);
        }
        foreach (Sorted::ONE_AT_A_TIME as $folder) {
            yield static fn (Bench $held): ChangeOrganizer => ChangeOrganizer::oneAtATime(
                $held,
                Named::row($held, "folder:$folder")->key(),
                true,
            );
        }
        foreach (Sorted::SETS as $path => [$rule, $fixed]) {
            yield static fn (Bench $held): KeepSet => new KeepSet($held, $path, $rule, $fixed ? self::found($held, $rule) : null);
        }
        foreach (Sorted::LOCKS as $what => $lock) {
            yield static fn (Bench $held): SetLocks => new SetLocks(
                $held,
                Targets::named(Named::keys($held, $what), $held),
                Lock::from($lock),
            );
        }
        yield from $this->views($bench);
    }

    /** @return iterable<\Closure(Bench): Command> */
    private function layers(Bench $bench): iterable
    {
        foreach (Sorted::NESTED as $name => $nested) {
            if (self::layer($bench, $name) === null && self::layer($bench, self::plain($name)) === null) {
                yield static fn (Bench $held): CreateLayer => new CreateLayer($held, $name, 0, null);
            }
            $keys = array_values(array_filter(array_map(static fn (string $each): ?string => self::layer($bench, $each), $nested)));
            $into = self::layer($bench, $name);
            if ($keys !== [] && $into !== null) {
                yield static fn (Bench $held): MoveRows => new MoveRows($held, $keys, 'into', $into);
            }
        }
        $numbered = array_filter(self::allLayers($bench), static fn (Organizer $row): bool => self::plain($row->name) !== $row->name);
        $keys = array_map(static fn (Organizer $row): string => $row->key(), array_values($numbered));
        yield static fn (Bench $held): RenameRows => new RenameRows($held, $keys, new Renaming('?? *', '$3'));
    }

    /** @return iterable<\Closure(Bench): Command> */
    private function views(Bench $bench): iterable
    {
        foreach (Sorted::VIEWS as $name => $view) {
            if ($bench->project->views()->where('name', $name)->doesntExist()) {
                yield function (Bench $held) use ($name, $view): KeepView {
                    $bytes = Sorted::picture($view['picture']);
                    $file = $held->project->folder().'/pictures/'.hash('xxh128', $bytes).'.jpg';
                    Kept::put($file, $bytes);

                    $keeps = [Facet::Camera, Facet::Rungs, Facet::Isolation];

                    return new KeepView($held, $name, $keeps, $view['camera'], $file, self::rungs($held, $view['rungs']));
                };
            }
        }
        foreach (array_unique(array_filter(array_column(Sorted::VIEWS, 'folder'))) as $folder) {
            $those = array_keys(array_filter(Sorted::VIEWS, static fn (array $view): bool => $view['folder'] === $folder));
            $keys = $bench->project
                ->views()
                ->whereIn('name', $those)
                ->where('folder_no', 0)
                ->pluck('no')
                ->map(static fn (mixed $no): string => 'V'.(is_int($no) ? $no : 0))
                ->all();
            if ($keys !== []) {
                yield static fn (Bench $held): CreateFolder => new CreateFolder($held, Holds::Views, $folder, 0, array_values($keys));
            }
        }
    }

    /** The person finds the desk as the first view has it. */
    private function arrive(Bench $bench): void
    {
        $bench->refresh();
        $first = $bench->project->views()->where('name', array_key_first(Sorted::VIEWS))->first();
        if ($first !== null && $bench->desk->view_no === 0) {
            DeskChange::on($bench, static function (Desk $desk) use ($first): void {
                $desk->view_no = $first->no;
                $desk->putSettings($first->settings());
            });
        }
    }

    private static function found(Bench $bench, string $rule): Bits
    {
        return $bench->find($rule)->rows ?? throw new Refused("“{$rule}” cannot be understood.");
    }

    /** @param array<string, int> $rungs by what has them */
    private static function rungs(Bench $bench, array $rungs): Settings
    {
        $settings = Settings::of([], []);
        foreach ($rungs as $what => $rung) {
            $targets = Targets::named(Named::keys($bench, $what), $bench);
            $settings = $settings
                ->withLayers($targets->layers, Rung::from($rung))
                ->withTags($targets->tags, Rung::from($rung))
                ->withFolders($targets->folders, Rung::from($rung));
        }

        return $settings;
    }

    private static function layer(Bench $bench, string $name): ?string
    {
        foreach (self::allLayers($bench) as $row) {
            if ($row->name === $name) {
                return $row->key();
            }
        }

        return null;
    }

    /** @return list<Organizer> without Unsorted */
    private static function allLayers(Bench $bench): array
    {
        $rows = [];
        foreach (Organizer::inside($bench, 'layers', 0) as $row) {
            array_push($rows, ...$row->isUnsorted() ? [] : $row->withNested($bench));
        }

        return $rows;
    }

    /** A layer's name without the number before it. */
    private static function plain(string $name): string
    {
        return (string) preg_replace('~^\d\d ~', '', $name);
    }
}
