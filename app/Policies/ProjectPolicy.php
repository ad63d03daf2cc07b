<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Project;
use App\Models\User;
use Illuminate\Auth\Access\Response;

/** Who may see or change a project. A stranger learns nothing, not even that it exists. */
final class ProjectPolicy
{
    public function see(User $person, Project $project): Response
    {
        return $this->has($person, $project, ['owner', 'editor', 'viewer']);
    }

    public function change(User $person, Project $project): Response
    {
        return $this->has($person, $project, ['owner', 'editor']);
    }

    public function own(User $person, Project $project): Response
    {
        return $this->has($person, $project, ['owner']);
    }

    /** @param list<string> $roles */
    private function has(User $person, Project $project, array $roles): Response
    {
        return in_array($project->role($person), $roles, true) ? Response::allow() : Response::denyAsNotFound();
    }
}
