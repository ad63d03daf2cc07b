<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\RenameObjects;
use App\Changes\RenameRows;
use App\Workbench\Answer;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Naming\Renaming;

/** New names for the whole pick, or for many layers, tags, sets and folders, shown before they are given. */
final class RenameController
{
    private const MOST = 1000;

    public function ask(Request $request, Bench $bench): View
    {
        $keys = self::rowKeys($request);

        return view('workbench.rename', [
            'bench' => $bench,
            'keys' => implode(',', $keys),
            'count' => $keys === [] ? $bench->pick()->count() : count($keys),
        ]);
    }

    public function preview(Request $request, Bench $bench): View
    {
        $keys = self::rowKeys($request);

        return view('workbench.rename-preview', [
            'command' => $this->command($bench, $request),
            'picked' => $keys === [] ? $bench->pick()->count() : count($keys),
        ]);
    }

    public function store(Request $request, Bench $bench, History $history): Response
    {
        $command = $history->carryOut($bench, fn (Bench $held): RenameObjects|RenameRows => $this->command($held, $request));

        return Answer::to($bench, $request)->after($command, 'Every name stays as it is.')->send();
    }

    /** @return list<string> keys of the layers, tags, sets and folders that are meant; none for the pick */
    private static function rowKeys(Request $request): array
    {
        $keys = array_slice(explode(',', $request->string('keys')->value()), 0, self::MOST);

        return array_values(array_filter($keys, static fn (string $key): bool => preg_match('~^[LTFEV]\d{1,9}$~D', $key) === 1));
    }

    private function command(Bench $bench, Request $request): RenameObjects|RenameRows
    {
        $text = static function (string $field) use ($request): string {
            $given = $request->string($field)->value();
            if (mb_strlen($given) > 200) {
                throw new Refused('This has at most 200 characters.', $field);
            }

            return $given;
        };
        $whole = static function (string $field, int $least, int $most, int $otherwise) use ($request): int {
            $given = trim($request->string($field)->value());
            if ($given === '') {
                return $otherwise;
            }
            if (preg_match('~^-?\d{1,9}$~', $given) !== 1 || (int) $given < $least || (int) $given > $most) {
                throw new Refused("Write a whole number from $least to ".number_format($most).'.', $field);
            }

            return (int) $given;
        };
        $renaming = static fn (): Renaming => new Renaming(
            $text('find'),
            $text('replace'),
            $text('pattern'),
            $text('prefix'),
            $text('suffix'),
            $whole('start', -999_999_999, 999_999_999, 1),
            $whole('step', -9999, 9999, 1),
            $whole('digits', 1, 9, 1),
        );
        $keys = self::rowKeys($request);
        if ($keys !== []) {
            return new RenameRows($bench, $keys, $renaming());
        }
        if ($bench->pick()->count() === 0) {
            throw new Refused('Nothing is picked; pick the objects to rename first.', 'pattern');
        }

        return new RenameObjects($bench, $bench->pickedBits(), $renaming());
    }
}
