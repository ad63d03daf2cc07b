<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Models\User;
use Illuminate\Support\Str;

final class AddPerson extends Scripted
{
    protected $signature = 'shelf:person {email} {name} {--password= : made up and printed when not given}';

    protected $description = 'Give somebody an account';

    public function handle(): int
    {
        $email = mb_strtolower($this->argument('email'));
        $name = trim($this->argument('name'));
        $wrong = match (true) {
            filter_var($email, FILTER_VALIDATE_EMAIL) === false => "\"$email\" is not an e-mail address.",
            $name === '' || mb_strlen($name) > 255 || ! mb_check_encoding($name, 'UTF-8') => 'A name has 1 to 255 characters, in UTF-8.',
            User::query()->where('email', $email)->exists() => "$email has an account already.",
            default => null,
        };
        if ($wrong !== null) {
            throw new Refused($wrong);
        }
        $given = $this->option('password');
        $password = is_string($given) && $given !== '' ? $given : Str::password(16, symbols: false);
        User::query()->create(['name' => $name, 'email' => $email, 'password' => $password, 'hints' => implode(' ', User::HINTS)]);
        $this->line("$email can sign in".($password === $given ? '.' : " with the password $password"));

        return self::SUCCESS;
    }
}
