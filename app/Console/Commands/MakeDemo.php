<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Jobs\Uploads;
use App\Models\User;
use MarlpitBaths\MarlpitBaths;
use VineShelf\Layers\SortBy;

final class MakeDemo extends Scripted
{
    protected $signature =
        'shelf:demo {--size=demo : small, demo, medium, large, huge or scattered} {--force : another one, although there is one}';

    protected $description = 'Make the demo person and their project, Marlpit Baths';

    public function handle(Uploads $uploads): int
    {
        $person = User::query()->firstOrCreate(
            ['email' => config('shelf.demo.email')],
            ['name' => 'Ida Keller', 'password' => config('shelf.demo.password')],
        );
        if (! $this->option('force') && ($person->projects()->exists() || $person->imports()->exists())) {
            return self::SUCCESS;
        }
        $size = $this->option('size');
        if (! isset(MarlpitBaths::SIZES[$size])) {
            throw new Refused('The sizes are '.implode(', ', array_keys(MarlpitBaths::SIZES)).'.');
        }
        $path = tempnam(sys_get_temp_dir(), 'shelf');
        MarlpitBaths::write((string) $path, $size);
        $file = $size === 'demo' ? 'Marlpit Baths.glb' : "Marlpit Baths, $size.glb";
        $uploads->receive($person, null, (string) $path, $file, SortBy::Best, '');
        $this->line("A worker takes $file in now.");

        return self::SUCCESS;
    }
}
