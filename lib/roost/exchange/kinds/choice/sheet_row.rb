# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Choice
        # A choice as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "an option",
                        "right" => "letters of the right options, like A or A C, or what they say",
                        "rules" => "several, part marks, shuffled, how sure, letters only, any one" }.freeze
          EXAMPLE = { "Question" => "Which beak cracks seeds?", "Option A" => "Short and thick", "Option B" => "Long and thin",
                      "Option C" => "Hooked", "Right" => "A", "Time" => "20", "Points" => "100",
                      "Explanation" => "A short thick beak is strong.", "Subtopics" => "beaks, food",
                      "Rules" => "shuffled" }.freeze
          # Rules in words, and the settings they stand for.
          RULES = { "several" => "several", "part marks" => "partial", "shuffled" => "shuffle", "how sure" => "sure" }.freeze
          LETTERS_ONLY = /\Aletters only(?: a to (?<last>[b-l]))?\z/
          # Where one option is chosen and several are right.
          ANY_ONE = "any one"
          # How many there are, where the last are empty.
          OPTIONS = /\A(?<number>\d+) options\z/

          def self.read(id, kind, options:, right:, rules:, common:)
            lettered = rules.match(LETTERS_ONLY)
            texts = options[0..[options.rindex { |text| !text.empty? }, last(lettered, rules)].compact.max.to_i]
            RightOptions.places(right, texts).and_then do |places|
              next Core::Reading.refused("it has fewer than two options") if texts.length < 2

              made(kind, id, texts, places, rules, common.merge("lettered" => lettered ? "1" : "0"))
            end
          end

          # The place of the last option, as far as the rules say it.
          def self.last(lettered, rules)
            return (lettered[:last] || "d").ord - "a".ord if lettered

            told = rules.match(OPTIONS)
            told && (told[:number].to_i - 1).clamp(0, Core::Kinds::Choice::Form::MOST_OPTIONS - 1)
          end

          def self.made(kind, id, texts, places, rules, common)
            options = kind.options(texts.map { "" })
            ids = options.map { |option| option["id"] }
            ticks = RULES.to_h { |words, name| [name, rules.include?(words) ? "1" : "0"] }
            ticks["several"] = "1" if places.length > 1 && !rules.include?(ANY_ONE)
            kind.new(id: id, settings: { "options" => options, "made" => texts.length })
                .edited(common.merge(ticks, "option_ids" => ids, "option_texts" => texts, "keys" => ids.values_at(*places)))
          end
          private_class_method :last, :made

          of_prompt :settings, :lettered?, :several?

          def options = settings["options"].map { |option| option["text"] }

          def right = prompt.options.select(&:key).map(&:letter).join(" ")

          def pictures = lettered? ? {} : prompt.options.select(&:picture).to_h { |option| [option.letter, option.picture] }

          def slots = prompt.options.to_h { |option| [option.letter, option.id] }

          def rules
            last = prompt.options.last
            true_of(RULES.transform_values { |name| settings[name] }.merge(
                      "letters only A to #{last.letter}" => lettered?, ANY_ONE => !several? && settings["keys"].length > 1,
                      "#{prompt.options.length} options" => !lettered? && last.text.empty?
                    ))
          end
        end
      end
    end
  end
end
