<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Project;
use App\Models\User;
use Tests\TestCase;

/** A test that starts signed in, with Marlpit Baths taken in. */
abstract class ProjectTestCase extends TestCase
{
    protected User $ida;

    protected Project $project;

    protected function setUp(): void
    {
        parent::setUp();
        $this->ida = $this->person();
        $this->project = $this->baths($this->ida);
        $this->actingAs($this->ida);
    }
}
