<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\ShareLink;
use App\Presenting\Shown;
use Closure;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Symfony\Component\HttpFoundation\Response;

/**
 * Whoever comes by a link gets what it shows, and nothing else of the project. A link that was never made, has ended or was revoked sounds
 * the same; one with a password asks for it first.
 */
final class BringShown
{
    public function handle(Request $request, Closure $next): Response
    {
        $response = $this->answer($request, $next);
        // Addresses are secrets here: they are not sent on, and nothing is found by searching.
        $response->headers->set('Referrer-Policy', 'no-referrer');
        $response->headers->set('X-Robots-Tag', 'noindex, nofollow');

        return $response;
    }

    private function answer(Request $request, Closure $next): Response
    {
        $route = $request->route();
        \assert($route instanceof Route);
        $token = $route->parameter('token');
        $link = is_string($token) ? ShareLink::withToken($token) : null;
        if ($link === null || ! $link->isOpen()) {
            return response()->view('shown-closed', [], 404)->header('Cache-Control', 'no-store');
        }
        if (
            $link->password !== '' &&
            $request->session()->get(self::key($link)) !== $link->password &&
            $route->getName() !== 'shown.open'
        ) {
            return $request->isMethod('GET') && $route->getName() === 'shown'
                ? response()
                    ->view('shown-password', ['token' => $token, 'wrong' => $request->session()->pull('wrong')])
                    ->header('Cache-Control', 'no-store')
                : response('', 403);
        }
        $route->setParameter('token', Shown::by($link));
        /** @var Response $response */
        $response = $next($request);

        return $response;
    }

    /** Where a session notes the password, hashed, that a link was opened with: another one has to be given again. */
    public static function key(ShareLink $link): string
    {
        return "shown.$link->id";
    }
}
