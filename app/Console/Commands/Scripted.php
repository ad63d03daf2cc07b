<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Changes\ChangeIsWaiting;
use App\Database\ReadSnapshot;
use App\Files\UnableToKeep;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Event;
use Symfony\Component\Console\Exception\ExceptionInterface;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** A command for scripts: what is wrong is one plain sentence among the errors, and the exit code 2. */
abstract class Scripted extends Command
{
    /** Whether the command waits for what others do: the others read at one moment, whatever is changed meanwhile. */
    protected const WAITS = false;

    public function run(InputInterface $input, OutputInterface $output): int
    {
        $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        $say = static fn (string $sentence) => $errors->writeln($sentence, OutputInterface::OUTPUT_RAW);
        Event::listen(ChangeIsWaiting::class, static fn (ChangeIsWaiting $waiting) => $say("$waiting->says."));
        try {
            $run = fn (): int => parent::run($input, $output);

            return static::WAITS ? $run() : ReadSnapshot::during($run);
        } catch (\Throwable $error) {
            $say(self::sentence($error));
        }

        return 2;
    }

    /**
     * Runs what writes a file where the command was told to.
     *
     * @template T
     *
     * @param \Closure(): T $write
     *
     * @return T
     *
     * @throws Refused when it cannot be written there
     */
    protected static function writing(string $file, \Closure $write): mixed
    {
        try {
            return $write();
        } catch (UnableToKeep) {
            throw new Refused("There is no writing to $file, or not enough room.");
        }
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
}
