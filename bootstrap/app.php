<?php

declare(strict_types=1);

use App\Bench\Refused;
use App\Files\UnableToKeep;
use App\Http\Middleware\PlainInput;
use App\Http\Middleware\SecurityHeaders;
use Illuminate\Database\QueryException;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Log;
use VineShelf\Layers\UnknownLayer;

return Application::configure(basePath: dirname(__DIR__))
    ->withRouting(web: __DIR__.'/../routes/web.php', commands: __DIR__.'/../routes/console.php')
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->append(SecurityHeaders::class);
        $middleware->web(append: PlainInput::class);
        // Spaces count where names are put together, and where a rule is completed at the cursor.
        $middleware->trimStrings(except: ['words', 'find', 'replace', 'pattern', 'prefix', 'suffix', 'starts']);
        $middleware->redirectGuestsTo('/sign-in');
        $middleware->redirectUsersTo('/projects');
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->dontReport([Refused::class, UnknownLayer::class, UnableToKeep::class]);
        $exceptions->render(function (Refused|UnknownLayer $refused, Request $request) {
            return response()->view('workbench.refused', ['sentence' => $refused->getMessage(), 'field' => $refused instanceof Refused ? $refused->field : ''], 422);
        });
        $exceptions->render(function (UnableToKeep $full, Request $request) {
            Log::error('A file could not be kept.', ['file' => $full->getPrevious()?->getMessage()]);

            return response()->view('workbench.refused', ['sentence' => $full->getMessage(), 'field' => ''], 507);
        });
        $exceptions->render(function (QueryException|PDOException $error, Request $request) {
            if (str_contains($error->getMessage(), 'SQLSTATE[08') || str_contains($error->getMessage(), 'SQLSTATE[57P')) {
                return response()->view('errors.503', [], 503);
            }
        });
    })->create();
