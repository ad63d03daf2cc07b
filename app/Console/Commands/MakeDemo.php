<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Refused;
use App\Jobs\SortDemo;
use App\Jobs\Sorted;
use App\Jobs\Uploads;
use App\Models\Import;
use App\Models\User;
use MarlpitBaths\MarlpitBaths;

final class MakeDemo extends Scripted
{
    protected $signature = 'shelf:demo {--size=demo : small, demo, medium, large, huge or scattered} {--force : even if there is one}';

    protected $description = 'Make the demo person and their projects: Marlpit Baths as it came, and sorted';

    public function handle(Uploads $uploads): int
    {
        $person = User::query()->firstOrCreate(
            ['email' => config('shelf.demo.email')],
            ['name' => 'Ida Keller', 'password' => config('shelf.demo.password'), 'hints' => implode(' ', User::HINTS)],
        );
        if (! $this->option('force') && ($person->projects()->exists() || $person->imports()->exists())) {
            return self::SUCCESS;
        }
        $size = $this->option('size');
        if (! isset(MarlpitBaths::SIZES[$size])) {
            throw new Refused('The sizes are '.implode(', ', array_keys(MarlpitBaths::SIZES)).'.');
        }
        if ($size !== 'demo') {
            $this->take($uploads, $person, $size, "Marlpit Baths, $size.glb");

            return self::SUCCESS;
        }
        $this->take($uploads, $person, $size, 'Marlpit Baths, as it came.glb');
        $sorted = $this->take($uploads, $person, $size, 'Marlpit Baths.glb');
        SortDemo::dispatch($sorted->id);

        return self::SUCCESS;
    }

    private function take(Uploads $uploads, User $person, string $size, string $file): Import
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'shelf');
        MarlpitBaths::write($path, $size);
        $import = $uploads->receive($person, null, $path, $file, new Sorted);
        $this->line("A worker takes $file in now.");

        return $import;
    }
}
