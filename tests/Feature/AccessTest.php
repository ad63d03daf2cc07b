<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Http\Middleware\BringShown;
use App\Models\Import;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;
use VineShelf\Layers\SortBy;

final class AccessTest extends TestCase
{
    /** Routes of a person's own, or of nobody's yet, that need no more than their group says. */
    private const OWN = ['imports.room', 'projects', 'projects.store', 'imports.store', 'sign-out', 'theme', 'hints'];

    public function test_every_route_says_who_may_use_it(): void
    {
        $seen = 0;
        foreach (Routes::getRoutes()->getRoutes() as $route) {
            \assert($route instanceof Route);
            $guards = $route->gatherMiddleware();
            $seen++;
            if (in_array('guest', $guards, true) || in_array(BringShown::class, $guards, true)) {
                continue;
            }
            self::assertContains('auth', $guards, $route->uri());
            $can = array_filter($guards, static fn (mixed $guard): bool => is_string($guard) && str_starts_with($guard, 'can:'));
            if ($can === []) {
                self::assertTrue(in_array($route->getName(), self::OWN, true) || $route->uri() === '/', "{$route->uri()} has no rule");
            }
            if (str_contains($route->uri(), '{project}') && ! in_array('GET', $route->methods(), true)) {
                self::assertNotSame([], $can);
            }
        }
        self::assertGreaterThan(35, $seen);
    }

    public function test_a_stranger_learns_nothing_about_a_project_or_an_import(): void
    {
        $owner = $this->person();
        $project = $this->baths($owner);
        $import = Import::query()->where('project_id', $project->id)->firstOrFail();
        $stranger = $this->person('Otto Quill');
        $tried = 0;
        foreach (Routes::getRoutes()->getRoutes() as $route) {
            \assert($route instanceof Route);
            if (! str_contains($route->uri(), '{project}') && ! str_contains($route->uri(), '{import}')) {
                continue;
            }
            $path = str_replace(
                ['{project}', '{import}', '{source}'],
                [$project->key, $import->key, (string) $project->sources()->value('id')],
                $route->uri(),
            );
            $path = '/'.preg_replace('~\{\w+\}~', '1', $path);
            $nowhere = str_replace([$project->key, $import->key], 'zzzzzzzzzzzzzzzzzzzz', $path);
            $method = array_values(array_diff($route->methods(), ['HEAD']))[0];
            $refused = $this->actingAs($stranger)->call($method, $path);
            $missing = $this->actingAs($stranger)->call($method, $nowhere);
            self::assertSame(404, $refused->status(), "$method $path");
            self::assertSame($missing->getContent(), $refused->getContent(), "$method $path gives away that there is something");
            self::assertSame(
                $this->json($method, $nowhere)->assertStatus(404)->getContent(),
                $this->json($method, $path)->assertStatus(404)->getContent(),
                "$method $path gives it away as JSON",
            );
            $tried++;
        }
        self::assertGreaterThan(30, $tried);
        self::assertSame($project->name, $project->refresh()->name);
        self::assertSame(39, $project->layers()->count() + 1);
    }

    public function test_what_computes_is_limited_by_person_and_what_lies_in_files_is_not(): void
    {
        config()->set('shelf.requests', 5);
        $ida = $this->person();
        $project = $this->baths($ida);
        $project->people()->attach($vera = $this->person('Vera Moss'), ['role' => 'viewer']);
        $rung = fn (): TestResponse => $this->postJson("/projects/$project->key/rungs", ['keys' => 'L2', 'rung' => 2]);
        foreach (range(1, 5) as $_) {
            $this->actingAs($ida)->assertSame(200, $rung()->status());
        }
        self::assertSame(429, $rung()->status());
        $this->get("/projects/$project->key")
            ->assertStatus(429)
            ->assertSee('Too many requests')
            ->assertDontSee('exception');
        $this->get("/projects/$project->key/packs/1")->assertOk();
        // Another person is not held up by it, whatever project they ask for.
        $this->actingAs($vera)->assertSame(200, $rung()->status());
        $this->travel(61)->seconds();
        $this->actingAs($ida)->assertSame(200, $rung()->status());
    }

    public function test_somebody_who_may_only_see_cannot_change(): void
    {
        $project = $this->baths($this->person());
        $viewer = $this->person('Vera Moss');
        $project->people()->attach($viewer, ['role' => 'viewer']);

        $this->actingAs($viewer)
            ->get("/projects/$project->key")
            ->assertOk();
        $this->actingAs($viewer)
            ->post("/projects/$project->key/rungs", ['keys' => 'L2', 'rung' => 0])
            ->assertOk();
        $this->actingAs($viewer)
            ->post("/projects/$project->key/layers", ['name' => 'Mine'])
            ->assertNotFound();
        $this->actingAs($viewer)
            ->delete("/projects/$project->key")
            ->assertNotFound();
    }

    public function test_guests_are_led_to_the_sign_in_and_wrong_passwords_are_slowed_down(): void
    {
        $this->person();
        $this->get('/projects')->assertRedirect('/sign-in');
        for ($try = 0; $try < 6; $try++) {
            $this->post('/sign-in', ['email' => 'ida.keller@marlpit.example', 'password' => 'wrong'])->assertSessionHasErrors([
                'email' => 'No account has this e-mail address and password.',
            ]);
        }
        $this->post('/sign-in', ['email' => 'ida.keller@marlpit.example', 'password' => 'tidy-test'])->assertSessionHasErrors('email');
        self::assertGuest();
        $this->travel(2)->minutes();
        $this->post('/sign-in', ['email' => 'ida.keller@marlpit.example', 'password' => 'tidy-test'])->assertRedirect('/projects');
    }

    public function test_many_addresses_together_are_slowed_down_as_well_and_any_text_may_be_tried(): void
    {
        $this->person();
        for ($try = 0; $try < 30; $try++) {
            $this->withServerVariables(['REMOTE_ADDR' => "192.0.2.$try"])
                ->post('/sign-in', ['email' => 'ida.keller@marlpit.example', 'password' => 'wrong'])
                ->assertSessionHasErrors(['email' => 'No account has this e-mail address and password.']);
        }
        $answer = $this->withServerVariables(['REMOTE_ADDR' => '192.0.2.99'])->post('/sign-in', [
            'email' => 'ida.keller@marlpit.example',
            'password' => 'tidy-test',
        ]);
        self::assertStringStartsWith(
            'Too many tries.',
            $answer->assertSessionHasErrors('email')->getSession()->get('errors')->first('email'),
        );
        foreach ([str_repeat('😀', 200), "x' OR 1=1 --", '%', "a\u{200B}b", '::', '0'] as $email) {
            $this->withServerVariables(['REMOTE_ADDR' => '192.0.2.100'])
                ->post('/sign-in', ['email' => $email, 'password' => str_repeat('é', 1000)])
                ->assertSessionHasErrors('email');
        }
        $this->post('/sign-in', ['email' => "a\0b", 'password' => 'x'])->assertStatus(422);
        $this->post('/sign-in', ['email' => ['a'], 'password' => 'x'])->assertStatus(422);
    }

    public function test_only_names_that_are_configured_are_answered_to(): void
    {
        config(['app.url' => 'https://shelf.marlpit.example', 'shelf.hosts' => ['shelf.local']]);
        $this->get('/sign-in')->assertOk();
        $patterns = $this->app->make(\Illuminate\Http\Middleware\TrustHosts::class)->hosts();
        foreach (
            [
                'shelf.marlpit.example' => true,
                'shelf.local' => true,
                '127.0.0.1' => true,
                'elsewhere.example' => false,
                'x.shelf.local' => false,
                'shelfxlocal' => false,
            ] as $host => $known
        ) {
            self::assertSame(
                $known,
                array_filter($patterns, static fn (?string $pattern): bool => preg_match("{{$pattern}}i", $host) === 1) !== [],
                $host,
            );
        }
    }

    public function test_only_proxies_that_are_configured_are_believed(): void
    {
        $asked = static fn (): \Illuminate\Http\Request => \Illuminate\Http\Request::create(
            '/sign-in',
            'GET',
            server: ['REMOTE_ADDR' => '10.0.0.7', 'HTTP_X_FORWARDED_FOR' => '192.0.2.5'],
        );
        $seen = static function (\Illuminate\Http\Request $request): ?string {
            (new \Illuminate\Http\Middleware\TrustProxies)->handle(
                $request,
                static fn (\Illuminate\Http\Request $handled): \Illuminate\Http\Response => new \Illuminate\Http\Response(
                    (string) $handled->ip(),
                ),
            );

            return $request->ip();
        };
        self::assertSame('10.0.0.7', $seen($asked()));
        config(['shelf.proxies' => ['10.0.0.7']]);
        (new \App\Providers\AppServiceProvider($this->app))->boot();
        self::assertSame('192.0.2.5', $seen($asked()));
        config(['shelf.proxies' => []]);
        (new \App\Providers\AppServiceProvider($this->app))->boot();
        self::assertSame('10.0.0.7', $seen($asked()));
    }

    public function test_pages_carry_a_strict_policy_and_no_script_of_their_own(): void
    {
        $person = $this->person();
        $project = $this->baths($person);
        foreach (['/projects', "/projects/$project->key"] as $page) {
            $response = $this->actingAs($person)->get($page)->assertOk();
            self::assertStringContainsString("script-src 'self';", (string) $response->headers->get('Content-Security-Policy'));
            self::assertDoesNotMatchRegularExpression(
                '~<script(?![^>]*application/json)(?![^>]*src=)|\son\w+=|javascript:~i',
                (string) $response->getContent(),
            );
        }
    }

    public function test_an_import_into_somebody_elses_project_is_refused(): void
    {
        $project = $this->baths($this->person());
        $stranger = $this->person('Otto Quill');
        $file = new \Illuminate\Http\UploadedFile(self::demoFile(), 'hall.glb', null, null, true);
        $this->actingAs($stranger)
            ->postJson('/imports', ['file' => $file, 'sort_by' => SortBy::Best->value, 'project' => $project->key])
            ->assertNotFound();
        self::assertSame(0, $stranger->imports()->count());
    }
}
