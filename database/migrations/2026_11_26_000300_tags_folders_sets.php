<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Tags, selection sets, and folders of tags, sets and views. Members are one packed set of object numbers in the row. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('projects', function (Blueprint $table): void {
            $table->integer('next_tag')->default(1);
            $table->integer('next_folder')->default(1);
            $table->integer('next_set')->default(1);
        });
        Schema::create('folders', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->string('holds', 8);
            $table->integer('parent_no')->default(0);
            $table->integer('position');
            $table->string('name');
            $table->smallInteger('lock')->default(0);
            $table->boolean('one_at_a_time')->default(false);
            $table->primary(['project_id', 'no']);
        });
        Schema::create('tags', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->integer('folder_no')->default(0);
            $table->integer('position');
            $table->string('name');
            $table->string('colour', 7);
            $table->smallInteger('line')->default(0);
            $table->smallInteger('lock')->default(0);
            $table->text('note')->default('');
            $table->binary('members')->nullable();
            $table->primary(['project_id', 'no']);
        });
        Schema::create('sets', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->integer('folder_no')->default(0);
            $table->integer('position');
            $table->string('name');
            $table->text('rule')->nullable();
            $table->text('note')->default('');
            $table->binary('members')->nullable();
            $table->integer('size')->default(0);
            $table->primary(['project_id', 'no']);
        });
        Schema::table('layers', function (Blueprint $table): void {
            $table->smallInteger('line')->default(0);
            $table->boolean('one_at_a_time')->default(false);
            $table->text('note')->default('');
        });
        Schema::table('views', function (Blueprint $table): void {
            $table->integer('folder_no')->default(0);
        });
        Schema::table('desks', function (Blueprint $table): void {
            $table->jsonb('pins')->default('[]');
            $table->boolean('lands_in_new')->default(false);
        });
    }

    public function down(): void
    {
        Schema::table('desks', fn (Blueprint $table) => $table->dropColumn(['pins', 'lands_in_new']));
        Schema::table('views', fn (Blueprint $table) => $table->dropColumn('folder_no'));
        Schema::table('layers', fn (Blueprint $table) => $table->dropColumn(['line', 'one_at_a_time', 'note']));
        foreach (['sets', 'tags', 'folders'] as $name) {
            Schema::dropIfExists($name);
        }
        Schema::table('projects', fn (Blueprint $table) => $table->dropColumn(['next_tag', 'next_folder', 'next_set']));
    }
};
