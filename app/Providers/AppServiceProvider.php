<?php

declare(strict_types=1);

namespace App\Providers;

use App\Models\Import;
use App\Models\Project;
use App\Policies\ImportPolicy;
use App\Policies\ProjectPolicy;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\ServiceProvider;

final class AppServiceProvider extends ServiceProvider
{
    public function boot(): void
    {
        Gate::policy(Project::class, ProjectPolicy::class);
        Gate::policy(Import::class, ImportPolicy::class);
        Model::shouldBeStrict(! $this->app->isProduction());
    }
}
