<?php

declare(strict_types=1);

/*
 * One of several processes that use a project at the same time, as people with several windows do: until the moment in $argv[2] (seconds,
 * with fractions; it begins at $argv[1]) it makes random requests of the person $argv[3] on the project $argv[4], drawn with the seed
 * $argv[5]. Prints what it asked and was answered, as JSON: what, status, seconds, text.
 */

use App\Models\User;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;

$kernel = require __DIR__.'/booted.php';
config(['shelf.requests' => 1_000_000]);
Illuminate\Support\Facades\Queue::fake();
mt_srand((int) $argv[5]);

$any = static fn (mixed ...$of): mixed => $of[mt_rand(0, count($of) - 1)];
$objects = static fn (): string => implode(',', array_map(static fn (): string => 'O'.mt_rand(1, 60), range(1, mt_rand(1, 4))));
$row = static fn (): string => $any('L', 'L', 'T', 'F', 'E').mt_rand(1, 9);
$rows = static fn (): string => implode(',', array_map(static fn (): string => $row(), range(1, mt_rand(1, 3))));
$name = static fn (): string => $any('Wet', 'North', 'Phase', 'Oak').' '.mt_rand(1, 9);
$layer = static fn (): int => mt_rand(1, 9);
$lens = static fn (): string => $any('layers', 'tags', 'sets', 'nesting', 'objects', 'kinds', 'materials', 'sources');

/** @var array<string, array{string, string, \Closure(): array<string, mixed>}> $acts method, path and values, by what they are */
$acts = [
    'read: page' => ['GET', '', static fn () => []],
    'read: ledger' => ['GET', 'ledger', static fn () => []],
    'read: records' => ['GET', 'records', static fn () => ['part' => 0]],
    'read: found' => ['GET', 'ledger', static fn () => ['words' => $any('pane', 'tag:"wet 1"', 'layer:1', 'is tagged', 'hidden')]],
    'read: grid' => ['GET', 'grid/cells', static fn () => ['columns' => 'V1,V2,V3']],
    'read: why' => ['GET', 'why/'.'{object}', static fn () => []],
    'read: changes' => ['GET', 'changes', static fn () => []],
    'read: details' => ['GET', 'details', static fn () => ['keys' => $objects()]],
    'read: summary' => ['GET', 'summary', static fn () => []],
    'desk: rung' => ['POST', 'rungs', static fn () => ['keys' => $any($objects(), $rows()), 'rung' => mt_rand(0, 5)]],
    'desk: pick' => ['POST', 'pick', static fn () => ['mode' => $any('set', 'add', 'toggle'), 'keys' => $objects()]],
    'desk: isolate' => ['POST', 'isolate', static fn () => ['keys' => $objects(), 'rest' => 'hidden']],
    'desk: back' => ['POST', 'isolate/back', static fn () => []],
    'desk: step back' => ['POST', 'desk/undo', static fn () => []],
    'desk: unfold' => ['POST', 'ledger', static fn () => ['fold' => 'L'.$layer(), 'unfold' => 1]],
    'desk: tint' => ['POST', 'tint', static fn () => ['by' => $any('layer', 'tag', 'weight')]],
    'desk: view' => ['POST', 'views/{number}/apply', static fn () => []],
    'desk: landing' => ['POST', 'landing', static fn () => ['layer' => $layer()]],
    'change: file' => ['POST', 'file', static fn () => ['keys' => $objects(), 'layer' => $layer()]],
    'change: layer' => ['POST', 'layers', static fn () => ['name' => $name(), 'parent' => $any(0, $layer()), 'from_pick' => mt_rand(0, 1)]],
    'change: delete layer' => ['DELETE', 'layers/{number}', static fn () => ['target' => $layer()]],
    'change: merge layers' => ['POST', 'layers/merge', static fn () => ['keys' => 'L'.$layer().',L'.$layer()]],
    'change: tag' => [
        'POST',
        'tag',
        static fn () => ['keys' => $objects(), 'tag' => mt_rand(1, 6), 'mode' => $any('add', 'remove', 'toggle')],
    ],
    'change: new tag' => ['POST', 'tags', static fn () => ['name' => $name(), 'folder' => mt_rand(0, 3)]],
    'change: merge tags' => ['POST', 'tags/merge', static fn () => ['keys' => 'T'.mt_rand(1, 9).',T'.mt_rand(1, 9)]],
    'change: folder' => ['POST', 'folders', static fn () => ['holds' => $any('tags', 'sets', 'views'), 'name' => $name()]],
    'change: set' => ['POST', 'sets', static fn () => ['name' => $name(), 'of' => $any('pick', 'rule'), 'rule' => 'pane or is tagged']],
    'change: move rows' => [
        'POST',
        'rows/move',
        static fn () => ['where' => $any('into', 'before', 'after')] +
            $any(
                ['keys' => 'L'.mt_rand(2, 6), 'mark' => 'L'.$layer()],
                ['keys' => 'T'.mt_rand(1, 6), 'mark' => $any('T', 'F').mt_rand(1, 5)],
                ['keys' => 'F'.mt_rand(1, 5), 'mark' => 'F'.mt_rand(1, 5)],
            ),
    ],
    'change: delete rows' => [
        'DELETE',
        'rows',
        static fn () => ['keys' => $any('T', 'E', 'F').mt_rand(1, 9), 'with_content' => mt_rand(0, 1)],
    ],
    'change: rename' => ['PATCH', 'rows/{row}', static fn () => ['name' => $name()]],
    'change: lock' => ['POST', 'locks', static fn () => ['keys' => $any($objects(), $row()), 'lock' => $any(0, 0, 0, 1, 2)]],
    'change: output' => [
        'POST',
        'output',
        static fn () => ['keys' => $any($objects(), $row()), 'output' => $any('never', 'ghost', 'none', 'hide', 'back')],
    ],
    'change: keep view' => ['POST', 'views', static fn () => ['name' => $name(), 'keep_rungs' => 1, 'keep_output' => mt_rand(0, 1)]],
    'change: update view' => ['PATCH', 'views/{number}', static fn () => []],
    'change: delete view' => ['DELETE', 'views/{number}', static fn () => []],
    'change: group' => ['POST', 'objects/group', static fn () => ['keys' => $objects(), 'name' => $name()]],
    'change: ungroup' => ['POST', 'objects/ungroup', static fn () => ['keys' => 'O'.mt_rand(40, 90)]],
    'change: copy' => ['POST', 'objects/copy', static fn () => ['keys' => $objects(), 'way' => 'row', 'count' => mt_rand(1, 2), 'x' => 1]],
    'change: delete objects' => ['POST', 'objects/delete', static fn () => ['keys' => 'O'.mt_rand(20, 90)]],
    'change: own' => ['POST', 'own', static fn () => ['keys' => $objects(), 'property' => 'fire', 'value' => $any('F30', 'F90', '')]],
    'change: undo' => ['POST', 'undo', static fn () => []],
    'change: redo' => ['POST', 'redo', static fn () => []],
];
$answers = [];
usleep(max(0, (int) (((float) $argv[1] - microtime(true)) * 1e6)));
fwrite(STDERR, "It begins.\n");
while (microtime(true) < (float) $argv[2]) {
    $what = array_rand($acts);
    [$method, $path, $values] = $acts[$what];
    $path = strtr($path, ['{object}' => (string) mt_rand(1, 60), '{number}' => (string) mt_rand(1, 9), '{row}' => $row()]);
    $window = ['lens' => $lens(), 'from' => 0, 'count' => 20];
    $request = Request::create("/projects/$argv[4]/$path", $method, $values() + $window);
    Auth::setUser(User::query()->findOrFail((int) $argv[3]));
    $begun = microtime(true);
    $response = $kernel->handle($request);
    $text = html_entity_decode(trim((string) preg_replace('~\s+~', ' ', strip_tags((string) $response->getContent()))));
    $longest = str_starts_with($what, 'change') ? 100_000 : 100;
    $answers[] = [
        $what,
        $response->getStatusCode(),
        round(microtime(true) - $begun, 3),
        $response->getStatusCode() < 500 ? mb_substr($text, 0, $longest) : (string) ($response->exception ?? $text),
    ];
}
echo json_encode($answers, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE);
