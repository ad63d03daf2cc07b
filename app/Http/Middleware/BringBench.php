<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Bench\Bench;
use App\Bench\LedgerWindows;
use App\Models\Project;
use App\Models\User;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Illuminate\Support\Reflector;
use Symfony\Component\HttpFoundation\Response;

/**
 * A controller that asks for a bench gets the address's project, as the person who asks sees it now. Stands behind the check of who may.
 */
final class BringBench
{
    public function handle(Request $request, Closure $next): Response
    {
        $route = $request->route();
        $person = $request->user();
        if ($route instanceof Route && $person instanceof User && self::wantsBench($route)) {
            $project = $route->parameter('project');
            $bench = $project instanceof Project ? Bench::of($project, $person) : abort(404);
            $bench->window = LedgerWindows::named($request->header('X-Window') ?? $request->query('w'));
            $route->setParameter('project', $bench);
        }
        /** @var Response $response */
        $response = $next($request);

        return $response;
    }

    private static function wantsBench(Route $route): bool
    {
        foreach ($route->signatureParameters() as $parameter) {
            if (Reflector::getParameterClassName($parameter) === Bench::class) {
                return true;
            }
        }

        return false;
    }
}
