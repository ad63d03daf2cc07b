<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Database\ReadSnapshot;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** A request reads the project, what it is sorted by and the desk as they stood at one moment, whatever others change meanwhile. */
final class ReadAtOneMoment
{
    public function handle(Request $request, Closure $next): Response
    {
        return ReadSnapshot::during(static function () use ($request, $next): Response {
            /** @var Response $response */
            $response = $next($request);

            return $response;
        });
    }
}
