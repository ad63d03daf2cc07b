<?php

declare(strict_types=1);

use App\Lighten\Coarsening;
use App\Models\Lightening;
use App\Models\Project;

/** Measures what is proposed to make a model lighter: the first guess, as it is answered, and the whole of it, from the queue. */
final class Lightens
{
    private const ROUNDS = 5;

    /** @return array<string, array{float, float, float, string}> milliseconds, those of an empty request, goal, what it came to */
    public static function requests(string $size): array
    {
        [$client, $base] = Served::client($size);
        $project = Project::query()->where('key', basename($base))->firstOrFail();
        for ($end = microtime(true) + 600; Coarsening::left($project) > 0;) {
            microtime(true) < $end || throw new RuntimeException('Coarser versions do not come.');
            sleep(1);
        }
        $camera = json_encode(Served::sight($base) + ['width' => 780, 'height' => 644], JSON_THROW_ON_ERROR);
        $budget = ['demo' => 80_000, 'medium' => 200_000][$size] ?? 400_000;
        $rows = [];
        foreach (
            [
                'objects, from a camera' => ['objects', 'camera'],
                'objects, from everywhere' => ['objects', 'everywhere'],
                'layers, from a camera' => ['layers', 'camera'],
            ] as $name => [$by, $from]
        ) {
            $asked = http_build_query(
                ['triangles' => $budget, 'side' => 'desk', 'hides' => 1, 'camera' => $camera] + compact('by', 'from'),
            );
            $guesses = $wholes = $floors = [];
            $last = null;
            for ($round = 0; $round < self::ROUNDS; $round++) {
                $known = $client->known();
                $floors[] = Rows::time(static fn () => $client->get("$base/pulse?$known", 204));
                $began = microtime(true);
                $client->post("$base/lighten", $asked);
                $guesses[] = 1000 * (microtime(true) - $began);
                do {
                    usleep(10_000);
                    $last = Lightening::query()->where('project_id', $project->id)->latest('id')->firstOrFail();
                } while (! $last->isOver());
                $wholes[] = 1000 * (microtime(true) - $began);
            }
            if ($last?->state !== 'done') {
                throw new RuntimeException("It could not be lightened: $last->says");
            }
            sort($guesses);
            sort($wholes);
            sort($floors);
            $report = (array) $last->report;
            $says = sprintf(
                '%s triangles become %s, losing %.2f %%, no choice less than %.2f %%',
                number_format($report['before']['triangles']),
                number_format($report['after']['triangles']),
                100 * $report['loss'],
                100 * $report['bound'],
            );
            $middle = intdiv(self::ROUNDS, 2);
            $rows["lighten $name, a first guess"] = [$guesses[$middle], $floors[$middle], 1000.0, 'answered'];
            $rows["lighten $name, the whole"] = [$wholes[$middle], $floors[$middle], 5000.0, $says];
        }

        return $rows;
    }
}
