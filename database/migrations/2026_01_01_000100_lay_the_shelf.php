<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

/** Projects and what is in them. Layers, objects, meshes and views are numbered within their project and numbers are never reused. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('projects', function (Blueprint $table): void {
            $table->id();
            $table->string('key', 24)->unique();
            $table->string('name');
            $table->bigInteger('revision')->default(1);
            $table->integer('next_object')->default(1);
            $table->integer('next_layer')->default(2);
            $table->integer('next_view')->default(1);
            $table->integer('next_mesh')->default(1);
            $table->integer('next_material')->default(1);
            $table->integer('next_texture')->default(1);
            $table->integer('next_pack')->default(1);
            $table->bigInteger('next_change')->default(1);
            $table->timestamps();
        });
        Schema::create('project_people', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('role', 10);
            $table->primary(['project_id', 'user_id']);
        });
        Schema::create('sources', function (Blueprint $table): void {
            $table->id();
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->string('name');
            $table->string('format', 20);
            $table->bigInteger('bytes');
            $table->jsonb('report');
            $table->timestamps();
        });
        Schema::create('imports', function (Blueprint $table): void {
            $table->id();
            $table->string('key', 24)->unique();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->foreignId('project_id')->nullable()->constrained()->cascadeOnDelete();
            $table->foreignId('source_id')->nullable()->constrained()->cascadeOnDelete();
            $table->string('file_name');
            $table->string('path');
            $table->bigInteger('bytes');
            $table->string('sort_by', 12);
            $table->string('property')->default('');
            $table->string('state', 10)->default('waiting');
            $table->string('stage')->default('');
            $table->bigInteger('done')->default(0);
            $table->bigInteger('total')->default(0);
            $table->integer('objects')->default(0);
            $table->text('error')->default('');
            $table->boolean('stop')->default(false);
            $table->timestamps();
        });
        Schema::create('layers', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->integer('parent_no')->default(0);
            $table->integer('position');
            $table->string('name');
            $table->string('colour', 7);
            $table->smallInteger('lock')->default(0);
            $table->primary(['project_id', 'no']);
        });
        Schema::create('objects', function (Blueprint $table): void {
            $table->unsignedBigInteger('project_id');
            $table->integer('no');
            $table->integer('parent_no');
            $table->integer('position');
            $table->integer('layer_no');
            $table->integer('mesh_no')->default(0);
            $table->integer('triangles')->default(0);
            $table->integer('vertices')->default(0);
            $table->smallInteger('kind');
            $table->smallInteger('lock')->default(0);
            $table->boolean('gone')->default(false);
            $table->bigInteger('source_id');
            $table->text('name');
            $table->text('class')->default('');
            $table->text('source_key');
            $table->binary('transform');
            $table->binary('instances')->nullable();
            $table->jsonb('properties')->nullable();
            $table->primary(['project_id', 'no']);
        });
        // Moving many objects to another layer rewrites their rows; room on the page keeps the index out of it.
        DB::statement('ALTER TABLE objects SET (fillfactor = 70)');
        // A foreign key would be checked row by row and double the time of an import; objects only ever come inside the transaction that
        // holds their project, so it is enough that they go with it.
        DB::unprepared(
            <<<'SQL'
                CREATE FUNCTION delete_objects_of_project() RETURNS trigger LANGUAGE plpgsql AS $$
                BEGIN
                    DELETE FROM objects WHERE project_id = OLD.id;
                    RETURN OLD;
                END $$;
                CREATE TRIGGER objects_go_with_their_project AFTER DELETE ON projects
                    FOR EACH ROW EXECUTE FUNCTION delete_objects_of_project();
            SQL
            ,
        );
        Schema::create('meshes', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->bigInteger('source_id');
            $table->integer('pack_no');
            $table->integer('material_no')->default(0);
            $table->text('name');
            $table->char('hash', 32);
            $table->integer('triangles');
            $table->integer('vertices');
            $table->integer('pieces');
            $table->bigInteger('bytes');
            $table->binary('bounds');
            $table->primary(['project_id', 'no']);
        });
        Schema::create('materials', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->bigInteger('source_id');
            $table->text('name');
            $table->jsonb('surface');
            $table->primary(['project_id', 'no']);
        });
        foreach (['packs', 'textures'] as $kept) {
            Schema::create($kept, function (Blueprint $table): void {
                $table->foreignId('project_id')->constrained()->cascadeOnDelete();
                $table->integer('no');
                $table->bigInteger('source_id');
                $table->string('file');
                $table->bigInteger('bytes');
                $table->primary(['project_id', 'no']);
            });
        }
        Schema::create('desks', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->bigInteger('revision')->default(1);
            $table->binary('rungs')->nullable();
            $table->binary('pick')->nullable();
            $table->jsonb('ledger')->default('{}');
            $table->integer('view_no')->default(0);
            $table->integer('landing_layer')->default(1);
            $table->bigInteger('next_step')->default(1);
            $table->primary(['project_id', 'user_id']);
        });
        Schema::create('desk_steps', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->bigInteger('no');
            $table->string('name');
            $table->binary('before');
            $table->binary('after');
            $table->boolean('undone')->default(false);
            $table->primary(['project_id', 'user_id', 'no']);
        });
        Schema::create('views', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->integer('position');
            $table->string('name');
            $table->jsonb('camera')->nullable();
            $table->binary('rungs')->nullable();
            $table->smallInteger('newcomers')->default(0);
            $table->integer('known_layer');
            $table->string('picture')->default('');
            $table->timestamp('kept_at');
            $table->primary(['project_id', 'no']);
        });
        Schema::create('changes', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->bigInteger('no');
            $table->foreignId('user_id')->nullable()->constrained()->nullOnDelete();
            $table->string('name');
            $table->binary('edits');
            $table->boolean('undone')->default(false);
            $table->timestamp('made_at');
            $table->primary(['project_id', 'no']);
        });
    }

    public function down(): void
    {
        foreach (
            [
                'changes',
                'views',
                'desk_steps',
                'desks',
                'textures',
                'packs',
                'materials',
                'meshes',
                'objects',
                'layers',
                'imports',
                'sources',
                'project_people',
                'projects',
            ] as $table
        ) {
            Schema::dropIfExists($table);
        }
        DB::statement('DROP FUNCTION IF EXISTS delete_objects_of_project');
    }
};
