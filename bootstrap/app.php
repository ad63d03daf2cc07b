<?php

declare(strict_types=1);

use App\Bench\Refused;
use App\Files\UnableToKeep;
use App\Http\Middleware\PlainInput;
use App\Http\Middleware\ReadAtOneMoment;
use App\Http\Middleware\SecurityHeaders;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Log;
use Symfony\Component\HttpKernel\Exception\HttpException;
use VineShelf\Layers\UnknownLayer;

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php', commands: __DIR__.'/../routes/console.php')
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->append(SecurityHeaders::class);
        $middleware->web(append: PlainInput::class, prepend: ReadAtOneMoment::class);
        // Spaces count where names are put together, and where a rule is completed at the cursor.
        $middleware->trimStrings(except: ['words', 'find', 'replace', 'pattern', 'prefix', 'suffix', 'starts']);
        $middleware->redirectGuestsTo('/sign-in');
        $middleware->trustHosts(
            at: static fn (): array => array_map(static fn (string $host): string => '^'.preg_quote($host).'$', [
                (string) parse_url((string) config('app.url'), PHP_URL_HOST),
                '127.0.0.1',
                'localhost',
                ...config('shelf.hosts'),
            ]),
            subdomains: false,
        );
        $middleware->redirectUsersTo('/projects');
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->dontReport([Refused::class, UnknownLayer::class, UnableToKeep::class]);
        $exceptions->render(function (Refused|UnknownLayer $refused, Request $request) {
            return response()->view(
                'workbench.refused',
                ['sentence' => $refused->getMessage(), 'field' => $refused instanceof Refused ? $refused->field : ''],
                422,
            );
        });
        $exceptions->render(function (UnableToKeep $full, Request $request) {
            Log::error('A file could not be kept.', ['file' => $full->getPrevious()?->getMessage()]);

            return response()->view('workbench.refused', ['sentence' => $full->getMessage(), 'field' => ''], 507);
        });
        // A part of a page cannot lead elsewhere; the page says that its person is signed out.
        $exceptions->render(
            fn (AuthenticationException $none, Request $request) => $request->hasHeader('HX-Request') ? response('', 401) : null,
        );
        // What is not there and what is somebody else's sound alike.
        $exceptions->render(
            fn (HttpException $none, Request $request) => $request->expectsJson() && in_array($none->getStatusCode(), [403, 404], true)
                ? response()->json(['message' => 'Nothing is here, or it is not yours to see.'], 404)
                : null,
        );
        $exceptions->render(function (QueryException|PDOException $error, Request $request) {
            if (str_contains($error->getMessage(), 'SQLSTATE[08') || str_contains($error->getMessage(), 'SQLSTATE[57P')) {
                return response()->view('errors.503', [], 503);
            }
        });
    })
    ->create();
