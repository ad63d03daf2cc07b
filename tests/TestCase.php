<?php

declare(strict_types=1);

namespace Tests;

use App\Jobs\Coarsen;
use App\Jobs\Sorted;
use App\Jobs\TakeIn;
use App\Jobs\Uploads;
use App\Models\Import;
use App\Models\Project;
use App\Models\User;
use App\Scenes\SceneStore;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\DatabaseTransactions;
use Illuminate\Foundation\Testing\TestCase as BaseTestCase;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Storage;
use MarlpitBaths\MarlpitBaths;
use Tests\Feature\Support\Snapshot;
use VineShelf\Layers\SortBy;
use VineShelf\Scene\Coded;

/** A test with the application and its PostgreSQL; everything it writes is taken back at its end. */
abstract class TestCase extends BaseTestCase
{
    use DatabaseTransactions;

    public function createApplication(): Application
    {
        /** @var Application $app */
        $app = require __DIR__.'/../bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();
        $app['config']->set('database.connections.pgsql.database', self::database());
        // What a test writes is seen on its own connection only.
        $app['config']->set('shelf.aside', 'pgsql');

        return $app;
    }

    /** A database that holds nothing but what tests put in; two processes that test at the same time have two. */
    protected static function database(): string
    {
        return getenv('FEATURE_DATABASE') ?: 'shelf_feature';
    }

    protected function setUp(): void
    {
        parent::setUp();
        Storage::fake('local');
        Queue::fake();
        $this->withoutVite();
    }

    /** As another process has one to the same database. */
    protected function otherConnection(?string $name = null): \PDO
    {
        /** @var array{host: string, port: int|string, database: string, username: string, password: string} $database */
        $database = config('database.connections.pgsql');

        return new \PDO(
            "pgsql:host={$database['host']};port={$database['port']};dbname=".($name ?? $database['database']),
            $database['username'],
            $database['password'],
        );
    }

    protected function person(string $name = 'Ida Keller'): User
    {
        return User::query()
            ->create(['name' => $name, 'email' => strtolower(str_replace(' ', '.', $name)).'@marlpit.example', 'password' => 'tidy-test'])
            ->refresh();
    }

    /** A file given and taken in, as the worker would. */
    protected function takeIn(
        User $person,
        string $path,
        SortBy $by = SortBy::Best,
        string $name = 'hall.glb',
        ?Project $into = null,
        string $property = '',
        string $tagsFrom = '',
        string $separator = '',
    ): Import {
        $copy = (string) tempnam(sys_get_temp_dir(), 'shelf');
        copy($path, $copy);
        $import = $this->app
            ->make(Uploads::class)
            ->receive($person, $into, $copy, $name, new Sorted($by, $property, $tagsFrom, $separator));
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));

        return $import->refresh();
    }

    /** Marlpit Baths, taken in. */
    protected function baths(User $person): Project
    {
        static $snapshot = null;
        $project = $snapshot?->putBack($person);
        if ($project === null) {
            $import = $this->takeIn($person, self::demoFile(), name: 'Marlpit Baths.glb');
            $project = $import->project ?? throw new \LogicException("The demo was not taken in: $import->error");
            $snapshot ??= $this->snapshot($project, $person);
        }

        return $project;
    }

    /** Marlpit Baths with coarser versions of all meshes. */
    protected function coarseBaths(User $person): Project
    {
        static $snapshot = null;
        $project = $snapshot?->putBack($person);
        if ($project === null) {
            $project = $this->baths($person);
            (new Coarsen($project->id))->handle($this->app->make(SceneStore::class));
            $snapshot ??= $this->snapshot($project->refresh(), $person);
        }

        return $project;
    }

    /** A project as it is, with what rules and sorting are known to need worked out, as it is soon after a file was taken in. */
    protected function snapshot(Project $project, User $person): Snapshot
    {
        $store = $this->app->make(SceneStore::class);
        $store->ripen($project);
        $store->columns($project)->column('properties');

        return Snapshot::of($project, $person);
    }

    protected static function demoFile(): string
    {
        static $path = null;
        if ($path === null) {
            $path = (string) tempnam(sys_get_temp_dir(), 'shelf-demo');
            MarlpitBaths::write($path, 'demo');
            register_shutdown_function(static fn () => @unlink($path));
        }

        return $path;
    }

    /** The number of the layer with the name. */
    protected function layer(Project $project, string $name): int
    {
        return (int) $project->layers()->where('name', $name)->value('no');
    }

    /** From here on no file can grow beyond so many bytes: as on a disk that is full. */
    protected function roomForFiles(?int $bytes): void
    {
        pcntl_signal(SIGXFSZ, SIG_IGN);
        posix_setrlimit(POSIX_RLIMIT_FSIZE, $bytes ?? POSIX_RLIMIT_INFINITY, POSIX_RLIMIT_INFINITY);
    }

    /** Whether the scene index says what an index built anew from the database says. */
    protected function assertIndexTrue(Project $project): void
    {
        $project->refresh();
        $store = $this->app->make(SceneStore::class);
        $kept = $store->columns($project);
        foreach ((new \App\Scenes\SceneQuery)->columns($project) as $name => $bytes) {
            // The same values may be coded in another order.
            $says = static fn (string $column): string => md5(
                in_array($name, ['layer', 'lock'], true) ? serialize(Coded::unpack($column)->toList()) : $column,
            );
            self::assertSame($says($bytes), $says($kept->column($name)), "column $name at revision $project->revision");
        }
    }
}
