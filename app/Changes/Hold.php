<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Refused;
use App\Models\Project;
use App\Models\User;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;

/**
 * Whoever changes a project holds its row until their transaction ends, and everybody else who wants to change it waits. Readers, desks and
 * what only points at the project do not wait. Where more is held, the project comes first, then desks in the order of their people, then
 * the rest.
 *
 * Who holds and who waits is told to the database as the name of the connection: "change PROJECT PERSON" or "waits PROJECT PERSON", with
 * ids, 0 for the house itself.
 */
final class Hold
{
    private const TIMED_OUT = '55P03';

    /**
     * Reads the project as it is once nobody else can change it.
     *
     * @param User|null $person who wants to change it; a job of the house waits for as long as it takes
     *
     * @throws Refused when others hold it for too long
     */
    public static function on(Project $project, ?User $person = null): void
    {
        $by = $project->id.' '.($person->id ?? 0);
        $patience = $person === null ? 0 : config()->integer('shelf.waits_for_changes');
        self::set(['application_name' => "waits $by", 'lock_timeout' => "{$patience}s"]);
        try {
            $held = $person !== null && Event::hasListeners(ChangeIsWaiting::class) ? self::heldOrTold($project, $person) : null;
            $held ??= self::held($project);
        } catch (QueryException $failed) {
            throw self::hasTimedOut($failed)
                ? new Refused("Another change has been under way for $patience seconds; yours was not made. Try again in a while.")
                : $failed;
        }
        self::set(['application_name' => "change $by", 'lock_timeout' => "{$patience}s"]);
        $project->setRawAttributes($held->getAttributes(), true);
    }

    private static function held(Project $project): Project
    {
        return Project::query()->lock('for no key update')->findOrFail($project->id);
    }

    /** Waits for a second; where that is not enough, says whom for. */
    private static function heldOrTold(Project $project, User $person): ?Project
    {
        try {
            return DB::transaction(static function () use ($project): Project {
                self::set(['lock_timeout' => '1s']);

                return self::held($project);
            });
        } catch (QueryException $failed) {
            $says = self::hasTimedOut($failed) ? self::waitsInWords($project, $person) : throw $failed;
            $says === '' || Event::dispatch(new ChangeIsWaiting($says));

            return null;
        }
    }

    private static function hasTimedOut(QueryException $failed): bool
    {
        return $failed->getCode() === self::TIMED_OUT;
    }

    /** Whether a change of a person's waits for somebody else's, in words; "" when none does. */
    public static function waitsInWords(Project $project, User $person): string
    {
        $names = DB::select(
            'SELECT application_name AS name FROM pg_stat_activity
            WHERE datname = current_database() AND (application_name = ? OR application_name LIKE ?) ORDER BY xact_start',
            ["waits $project->id $person->id", "change $project->id %"],
        );
        $waits = array_filter($names, static fn (\stdClass $one): bool => str_starts_with($one->name, 'waits'));
        $holder = array_values(array_filter($names, static fn (\stdClass $one): bool => str_starts_with($one->name, 'change')))[0] ?? null;
        if ($waits === [] || $holder === null) {
            return '';
        }
        $by = (int) substr(strrchr($holder->name, ' ') ?: '', 1);
        $who = match ($by) {
            0 => 'The house is at work on the project',
            $person->id => 'Your last change is still under way',
            default => (User::query()->whereKey($by)->value('name') ?? 'Somebody').' is changing the project',
        };

        return "$who; yours comes next";
    }

    /** @param array<string, string> $settings of the connection, until the transaction ends */
    private static function set(array $settings): void
    {
        $calls = implode(', ', array_fill(0, count($settings), 'set_config(?, ?, true)'));
        $values = [];
        foreach ($settings as $name => $value) {
            array_push($values, $name, $value);
        }
        DB::select("SELECT $calls", $values);
    }
}
