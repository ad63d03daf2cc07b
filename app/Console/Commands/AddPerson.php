<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Support\Str;

final class AddPerson extends Command
{
    protected $signature = 'shelf:person {email} {name} {--password= : made up and printed when not given}';

    protected $description = 'Give somebody an account';

    public function handle(): int
    {
        $email = mb_strtolower($this->argument('email'));
        if (filter_var($email, FILTER_VALIDATE_EMAIL) === false) {
            $this->error("\"$email\" is not an e-mail address.");

            return self::FAILURE;
        }
        if (User::query()->where('email', $email)->exists()) {
            $this->error("$email has an account already.");

            return self::FAILURE;
        }
        $given = $this->option('password');
        $password = is_string($given) && $given !== '' ? $given : Str::password(16, symbols: false);
        User::query()->create(['name' => $this->argument('name'), 'email' => $email, 'password' => $password]);
        $this->line("$email can sign in".($password === $given ? '.' : " with the password $password"));

        return self::SUCCESS;
    }
}
