# frozen_string_literal: true

require "yaml"

module Roost
  module Operations
    # Makes a teacher one of the lessons that ship with the program (demo/lessons), with its pictures,
    # sounds and video.
    class ReadyLesson
      FOLDER = File.join(Settings::ROOT, "demo")
      # What a new teacher tries first: four slides, three questions.
      FIRST = "beaks-and-supper"

      # @param take [#call] gives the picture of a drawing, as TakeDrawing does
      def initialize(take: TakeDrawing.new)
        @take = take
      end

      # @param name [String] of a file of FOLDER, one of ours
      # @return [Integer] id of the lesson
      def call(account_id, name)
        source = YAML.safe_load_file(File.join(FOLDER, "lessons/#{name}.yml"))
        slides = source["slides"].each_with_index.map { |slide, place| slide(account_id, slide, place + 1) }
        lesson = Core::Lesson.new(title: source["title"], slides: slides, sections: sections(source),
                                  details: Core::Details.from_document(source["details"]))
        Store::Lessons.new.create(account_id, lesson)
      end

      private

      def sections(source)
        source.fetch("sections", []).each_with_index.map do |section, place|
          ids = (section["from"]..section["to"]).map { |number| "s#{number}" }
          Core::Section.new(id: "section#{place + 1}", way: section["way"], title: section["title"].to_s, slide_ids: ids).freeze
        end
      end

      def slide(account_id, source, number)
        words = source.slice("heading", "notes", "aside", "arrangement", "for_class", "web", "minutes").transform_keys(&:to_sym)
        drawings = source.fetch("drawings", []).map { |name| drawing(account_id, name) }
        Core::Slide.new(id: "s#{number}", **words, text: source["text"].to_s.strip, **clips(account_id, source),
                        prompt: source["prompt"] && prompt(account_id, source["prompt"], "p#{number}"),
                        pictures: [picture(account_id, source["picture"]), *drawings].compact)
      end

      def prompt(account_id, source, id)
        settings = source.except("kind")
        settings["options"]&.each do |option|
          name = option.delete("drawing")
          option["picture"] = drawing(account_id, name).to_document if name
        end
        Core::Kinds.named(source["kind"]).new(id: id, settings: settings)
      end

      def clips(account_id, source)
        sounds = source.slice("sound", "spoken").to_h { |name, file| [name.to_sym, clip(account_id, name, file)] }
        video = source["video"]
        return sounds unless video

        captions = open_medium(video["captions"]) { |file| KeepClip.new.captions(account_id, file, video["captions"]).value }
        sounds.merge(video: clip(account_id, "video", video["file"]).with(captions: captions, from: video["from"],
                                                                          to: video["to"]))
      end

      def clip(account_id, kind, name) = open_medium(name) { |file| KeepClip.new.call(account_id, kind, file, name).value }

      def open_medium(name, &block) = File.open(File.join(FOLDER, "media", name), "rb", &block)

      def drawing(account_id, name) = @take.call(account_id, name).value

      def picture(account_id, source)
        source && TakeDrawing.new.keep(account_id, File.join(FOLDER, "pictures", source["file"])).described(source["alt"])
      end
    end
  end
end
