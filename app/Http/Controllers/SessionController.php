<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Validation\ValidationException;
use Illuminate\View\View;

final class SessionController
{
    private const TRIES = 6;

    public function create(): View
    {
        return view('sign-in');
    }

    public function store(Request $request): RedirectResponse
    {
        $given = $request->validate(
            ['email' => ['required', 'string', 'max:200'], 'password' => ['required', 'string', 'max:1000']],
            ['email.required' => 'Type your e-mail address.', 'password.required' => 'Type your password.'],
        );
        $key = 'sign-in:'.mb_strtolower($request->string('email')->value()).'|'.$request->ip();
        if (RateLimiter::tooManyAttempts($key, self::TRIES)) {
            throw ValidationException::withMessages(['email' => 'Too many tries. Wait '.RateLimiter::availableIn($key).' seconds, then try again.']);
        }
        if (! Auth::attempt($given, remember: true)) {
            RateLimiter::hit($key, 60);
            throw ValidationException::withMessages(['email' => 'No account has this e-mail address and password.']);
        }
        RateLimiter::clear($key);
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

    public function theme(Request $request): RedirectResponse
    {
        $theme = $request->validate(['theme' => ['required', 'in:auto,light,dark']])['theme'];
        $request->user()?->update(['theme' => $theme]);

        return redirect()->back();
    }
}
