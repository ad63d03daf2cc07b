<?php

declare(strict_types=1);

/*
 * One of several processes that do something at the same time: waits until the moment in $argv[1] (seconds, with fractions), then carries
 * out the request in $argv[2], as JSON: person, method, path, values; with $argv[3] so many times. Prints the status and the text of each
 * answer as JSON.
 */

use App\Models\User;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;

$kernel = require __DIR__.'/booted.php';

/** @var array{person: int|null, method: string, path: string, values: array<string, mixed>} $asked */
$asked = json_decode($argv[2], true, 16, JSON_THROW_ON_ERROR);
$answers = [];
usleep(max(0, (int) (((float) $argv[1] - microtime(true)) * 1e6)));
for ($time = 0; $time < (int) ($argv[3] ?? 1); $time++) {
    $values = array_map(
        static fn (mixed $value): mixed => is_string($value) ? str_replace('{time}', (string) $time, $value) : $value,
        $asked['values'],
    );
    $request = Request::create($asked['path'], $asked['method'], $values);
    // Nobody signs in here, and no browser sends a token.
    if ($asked['person'] !== null) {
        Auth::setUser(User::query()->findOrFail($asked['person']));
    }
    app()->instance('middleware.disable', false);
    $response = $kernel->handle($request);
    $answers[] = [
        $response->getStatusCode(),
        html_entity_decode(trim((string) preg_replace('~\s+~', ' ', strip_tags((string) $response->getContent())))),
    ];
}
echo json_encode($answers, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);
