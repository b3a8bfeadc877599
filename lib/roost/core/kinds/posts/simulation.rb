# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # What a simulated student answers to it.
        class Simulation < Kinds::Simulation
          GENERIC = ["I saw a heron this morning.", "Why do they fly in a V?", "The wind was from the north.",
                     "My grandmother feeds them in winter."].freeze
          private_constant :GENERIC

          of_prompt :settings, :most

          def simulate(_student, random)
            texts = settings["samples"].empty? ? GENERIC : settings["samples"]
            posts = Array.new(1 + random.rand([most, 2].min)) do |place|
              emoji = random.rand < 0.3 ? Prompt::EMOJI[random.rand(Prompt::EMOJI.length)] : ""
              { "id" => "p#{place + 1}", "text" => texts[random.rand(texts.length)], "emoji" => emoji, "picture" => nil,
                "at" => 0 }
            end
            { "posts" => posts.uniq { |post| post["text"] }, "likes" => [], "writing" => "" }
          end
        end
      end
    end
  end
end
