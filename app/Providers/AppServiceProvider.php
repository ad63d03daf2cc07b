<?php

declare(strict_types=1);

namespace App\Providers;

use App\Database\SnapshotConnection;
use App\Models\Import;
use App\Models\Project;
use App\Models\User;
use App\Policies\ImportPolicy;
use App\Policies\ProjectPolicy;
use App\Queue\FairConnector;
use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Http\Middleware\TrustProxies;
use Illuminate\Http\Request;
use Illuminate\Queue\QueueManager;
use Illuminate\Support\Facades\Blade;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    /** Settings of PHP's compiler under which numbers are right: off, or without values in registers. */
    private const RIGHT = ['', '0', 'off', 'no', 'disable', '1054'];

    public function register(): void
    {
        // However PHP was started; see docs/decisions/jit-without-registers.md.
        if (! in_array(strtolower((string) ini_get('opcache.jit')), self::RIGHT, true)) {
            @ini_set('opcache.jit', '1054');
        }
        // Not among the settings themselves: those are kept by a process of the command line for those that serve pages.
        config(['database.connections.pgsql.options' => self::connection(PHP_SAPI)]);
    }

    /**
     * On the command line one process has several connections in turn, and letting go of one that is kept would take back what the next is
     * about to write. A statement is sent with its values at once: preparing what runs only once costs two more ways to the database.
     *
     * @return array<int, bool> options of the database connection
     */
    public static function connection(string $sapi): array
    {
        return [
            \PDO::ATTR_PERSISTENT => (bool) config('database.keep') && $sapi !== 'cli',
            \PDO::PGSQL_ATTR_DISABLE_PREPARES => true,
        ];
    }

    public function boot(): void
    {
        Connection::resolverFor('pgsql', static fn (...$given): SnapshotConnection => new SnapshotConnection(...$given));
        $this->callAfterResolving(
            'queue',
            fn (QueueManager $queues) => $queues->extend('fair', fn (): FairConnector => new FairConnector($this->app->make('db'))),
        );
        Gate::policy(Project::class, ProjectPolicy::class);
        Gate::policy(Import::class, ImportPolicy::class);
        Route::model('project', Project::class);
        // Keys and numbers as they are given out; anything else is an address that does not exist.
        Route::patterns(
            ['project' => '[a-z0-9]{1,40}', 'import' => '[a-z0-9]{1,40}', 'row' => '[LTFEV][0-9]{1,9}'] +
                array_fill_keys(
                    ['source', 'object', 'layer', 'view', 'layout', 'pack', 'texture', 'set', 'step', 'link', 'comment', 'line', 'change'],
                    '[0-9]{1,9}',
                ) + ['token' => '[A-Za-z0-9]{32}'],
        );
        // Only these are believed when they say whose request they bring.
        /** @var list<string> $proxies */
        $proxies = config('shelf.proxies');
        TrustProxies::at($proxies);
        // Indentation is for whoever reads the views; a window of the ledger would be half as long again with it.
        Blade::precompiler(static fn (string $view): string => (string) preg_replace('~\n\s+~', "\n ", $view));
        self::limits();
        Model::shouldBeStrict(! $this->app->isProduction());
    }

    /** How often what may be asked for. Each limit counts by itself: whoever signs in has not used up the openings of a link. */
    private static function limits(): void
    {
        $by = static function (Request $request): string {
            $person = $request->user();

            return $person instanceof User ? "person $person->id" : (string) $request->ip();
        };
        RateLimiter::for(
            'computing',
            static fn (Request $request): Limit => Limit::perMinute((int) config('shelf.requests'))->by($by($request)),
        );
        foreach (['sign-in' => 30, 'room' => 60, 'uploads' => 60] as $name => $times) {
            RateLimiter::for($name, static fn (Request $request): Limit => Limit::perMinute($times)->by($by($request)));
        }
        foreach (['links' => 10, 'comments' => 20] as $name => $times) {
            RateLimiter::for(
                $name,
                static fn (Request $request): Limit => Limit::perMinute($times)->by($by($request).' '.$request->segment(2)),
            );
        }
    }
}
