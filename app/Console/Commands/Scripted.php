<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Files\UnableToKeep;
use App\Models\Project;
use App\Models\User;
use Illuminate\Console\Command;
use Symfony\Component\Console\Exception\ExceptionInterface;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** A command for scripts: what is wrong is one plain sentence among the errors, and the exit code 2. */
abstract class Scripted extends Command
{
    public function run(InputInterface $input, OutputInterface $output): int
    {
        try {
            return parent::run($input, $output);
        } catch (\Throwable $error) {
            $sentence = self::sentence($error);
        }
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $errors->writeln($sentence, OutputInterface::OUTPUT_RAW);

        return 2;
    }

    /** What it means for whoever gave the command; what is no refusal is logged. */
    private static function sentence(\Throwable $error): string
    {
        if ($error instanceof ExceptionInterface) {
            return $error->getMessage().' See bin/shelf.';
        }
        if ($error instanceof Refused || $error instanceof UnableToKeep) {
            return $error->getMessage();
        }
        if ($error instanceof \PDOException && preg_match('~SQLSTATE\[(08|57P)~', $error->getMessage()) === 1) {
            return 'The database cannot be reached; bin/start starts it.';
        }
        report($error);

        return 'Something went wrong on our side; it was logged.';
    }

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
