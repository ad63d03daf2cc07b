<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Reports on what is untidy in a project, and what somebody has waved through. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('tidyings', static function (Blueprint $table): void {
            $table->id();
            $table->string('key', 40)->unique();
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->string('state', 12)->default('waiting');
            $table->integer('percent')->default(0);
            $table->boolean('stop')->default(false);
            $table->string('says', 500)->default('');
            // The revision that it looked at.
            $table->bigInteger('revision')->default(0);
            $table->binary('report')->nullable();
            $table->timestamps();
            $table->index(['project_id', 'user_id']);
        });
        Schema::create('waivers', static function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            // A check, and one thing that it found; none for all of it.
            $table->string('check', 40);
            $table->string('item', 80)->default('');
            // Objects that it no longer finds; null for whatever it finds.
            $table->binary('members')->nullable();
            $table->primary(['project_id', 'no']);
        });
        Schema::table('projects', static fn (Blueprint $table) => $table->integer('next_waiver')->default(1));
    }

    public function down(): void
    {
        Schema::table('projects', static fn (Blueprint $table) => $table->dropColumn('next_waiver'));
        Schema::dropIfExists('waivers');
        Schema::dropIfExists('tidyings');
    }
};
