<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Models\Project;
use App\Models\User;

/** A command that has to do with one project, in somebody's name: argument "project", option "person". */
abstract class OnProject extends Scripted
{
    /** @throws Refused when there is none */
    protected function project(): Project
    {
        $key = (string) $this->argument('project');

        return Project::query()->where('key', $key)->first() ?? throw new Refused("There is no project with the key $key.");
    }

    /**
     * Whose hand the command is: the one that is named, or the only owner there is, of the project or of any.
     *
     * @throws Refused
     */
    protected function person(?Project $project): User
    {
        $email = $this->option('person');
        if (is_string($email) && $email !== '') {
            $known = $project === null ? User::query() : $project->people();

            return self::user($known->where('email', $email)->first()) ??
                throw new Refused($project === null ? "Nobody has the address $email." : "Nobody in that project has the address $email.");
        }
        $owners =
            $project === null
                ? User::query()->whereHas('projects', static fn ($projects) => $projects->where('project_people.role', 'owner'))
                : $project->people()->wherePivot('role', 'owner');
        $found = $owners->limit(2)->get();
        if ($found->isEmpty() && $project === null) {
            $found = User::query()->limit(2)->get();
        }

        return ($found->count() === 1 ? self::user($found->first()) : null) ??
            throw new Refused($found->isEmpty() ? 'There is nobody yet; shelf:person adds one.' : 'Say who does it: --person=EMAIL.');
    }

    private static function user(mixed $person): ?User
    {
        return $person instanceof User ? $person : null;
    }
}
