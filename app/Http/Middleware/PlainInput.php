<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Bench\Refused;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** What is sent is text, and one value for each name: everything behind this may count on it. */
final class PlainInput
{
    /** Names under which several values come; their controllers check each. */
    private const LISTS = ['eye', 'from', 'way', 'parts'];

    public function handle(Request $request, Closure $next): Response
    {
        foreach ($request->input() as $name => $value) {
            if (is_array($value) && ! in_array($name, self::LISTS, true)) {
                throw new Refused('This has one value, not several.', (string) $name);
            }
            $values = is_array($value) ? $value : [$value];
            array_walk_recursive($values, static function (mixed $one) use ($name): void {
                if (is_string($one) && (! mb_check_encoding($one, 'UTF-8') || str_contains($one, "\0"))) {
                    throw new Refused('This is not text.', (string) $name);
                }
            });
        }
        /** @var Response $response */
        $response = $next($request);

        return $response;
    }
}
