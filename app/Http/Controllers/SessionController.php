<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\User;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Validation\ValidationException;
use Illuminate\View\View;

final class SessionController
{
    /** Wrong passwords in a minute before a person has to wait: from one address, and from all. */
    private const TRIES = 6;

    private const TRIES_FROM_ANYWHERE = 30;

    public function create(): View
    {
        return view('sign-in');
    }

    public function store(Request $request): RedirectResponse
    {
        /** @var array{email: string, password: string} $given */
        $given = $request->validate(
            ['email' => ['required', 'string', 'max:200'], 'password' => ['required', 'string', 'max:1000']],
            ['email.required' => 'Type your e-mail address.', 'password.required' => 'Type your password.'],
        );
        // Few tries from one address, and not many for one person from all addresses together.
        $about = sha1(mb_strtolower($given['email']));
        $limits = ["sign-in:$about:".$request->ip() => self::TRIES, "sign-in:$about" => self::TRIES_FROM_ANYWHERE];
        foreach ($limits as $key => $tries) {
            if (RateLimiter::tooManyAttempts($key, $tries)) {
                throw ValidationException::withMessages([
                    'email' => 'Too many tries. Wait '.RateLimiter::availableIn($key).' seconds, then try again.',
                ]);
            }
        }
        $person = User::query()->where('email', $given['email'])->first();
        // Where there is no account a password is hashed all the same: the time taken does not tell.
        $isRight = $person !== null ? Hash::check($given['password'], $person->password) : Hash::make($given['password']) === '';
        if ($person === null || ! $isRight) {
            foreach ($limits as $key => $tries) {
                RateLimiter::hit($key, 60);
            }
            throw ValidationException::withMessages(['email' => 'No account has this e-mail address and password.']);
        }
        array_map(RateLimiter::clear(...), array_keys($limits));
        if (Hash::needsRehash($person->password)) {
            $person->update(['password' => $given['password']]);
        }
        Auth::login($person, remember: true);
        $request->session()->regenerate();

        return redirect()->intended(route('projects'));
    }

    public function destroy(Request $request): RedirectResponse
    {
        Auth::logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return redirect()->route('sign-in');
    }

    /** A hint of the first visit was closed, or followed: it does not come again. */
    public function hint(Request $request): Response
    {
        $hint = $request->validate(['hint' => ['required', 'in:'.implode(',', User::HINTS)]])['hint'];
        $person = $request->user();
        if ($person instanceof User) {
            $person->update(['hints' => implode(' ', array_diff($person->hintsLeft(), [$hint]))]);
        }

        return response()->noContent();
    }

    public function theme(Request $request): RedirectResponse
    {
        $theme = $request->validate(['theme' => ['required', 'in:auto,light,dark']])['theme'];
        $request->user()?->update(['theme' => $theme]);

        return redirect()->back();
    }
}
